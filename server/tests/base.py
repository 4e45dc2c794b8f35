"""What server tests share: a signed-in engineer, and a small building made through the API."""

from typing import Any

from django.test import TestCase

from accounts.demo import demo_engineer
from calculations import service
from projects import document
from projects.starter import new_id


class Worked:
    """What became of a task, as an answer that waited for it would have said."""

    def __init__(self, test: "ApiTest", asked: Any) -> None:
        self.asked, self.status_code, self.content = asked, asked.status_code, asked.content
        self._body: Any = None
        self.headers = asked.headers
        if asked.status_code != 202:
            return
        self.task = asked.json()["id"]
        told = test.get(f"/tasks/{self.task}").json()
        if told["state"] == "done":
            answer = test.get(f"/tasks/{self.task}/result")
            self.status_code, self._body = answer.status_code, answer.json()
        else:
            self.status_code, self._body = 422, told["error"] | {"status": 422}
        self.content = str(self._body).encode()

    def json(self) -> Any:
        return self._body if self._body is not None else self.asked.json()

    def __getitem__(self, name: str) -> Any:
        return "application/problem+json" if self._body is not None and name == "Content-Type" else self.asked[name]


class ApiTest(TestCase):
    def setUp(self) -> None:
        document.forget_all()
        service.forget_all()
        self.user = demo_engineer()
        self.client.force_login(self.user)

    def get(self, path: str, **query: Any) -> Any:
        return self.client.get(f"/api{path}", query)

    def post(self, path: str, body: Any = None, **headers: str) -> Any:
        return self.client.post(f"/api{path}", body, content_type="application/json", **headers)

    def new_project(self, name: str = "Mill") -> str:
        return self.post("/projects", {"name": name}).json()["id"]

    def document(self, project: str) -> dict[str, Any]:
        return self.get(f"/projects/{project}/document").json()

    def commit(self, project: str, changes: list[dict[str, Any]], version: int | None = None) -> Any:
        base = self.document(project)["version"] if version is None else version
        return self.post(f"/projects/{project}/changes", {"base_version": base, "label": "test", "changes": changes})

    def set(self, project: str, kind: str, identity: str, **fields: Any) -> Any:
        return self.commit(project, [{"op": "set", "kind": kind, "id": identity, "fields": fields}])


def create(kind: str, identity: str, /, **fields: Any) -> dict[str, Any]:
    return {"op": "create", "kind": kind, "id": identity, "fields": fields}


class Small:
    """One heated and cooled room with a window, on an air system, with a duct and a pipe."""

    def __init__(self, test: ApiTest) -> None:
        self.project = test.new_project()
        found = test.document(self.project)["objects"]
        wool = next(m["id"] for m in found["material"] if m["name"] == "Mineral wool")
        self.kit = found["kit"][0]["id"]
        names = ("wall", "layer", "glass", "use", "room", "surface", "opening", "system", "duct", "circuit", "pipe")
        self.ids = {name: new_id() for name in names}
        i = self.ids
        changes = [
            create("assembly", i["wall"], name="Wall", element="wall"),
            create("layer", i["layer"], assembly=i["wall"], position=0, material=wool, thickness_m=0.1),
            create("glazing", i["glass"], name="Glass", u_value=1.4, g_value=0.5),
            {"op": "set", "kind": "kit", "id": self.kit, "fields": {"outer_wall": i["wall"], "window": i["glass"]}},
            create("use", i["use"], name="Office", people_value=0.1, lights_value=10, air_per_person_m3_s=0.0025),
            create("air_system", i["system"], name="AHU-1"),
            create(
                "room",
                i["room"],
                number="1",
                name="Office",
                level=found["level"][0]["id"],
                use=i["use"],
                floor_area_m2=20,
                air_system=i["system"],
            ),
            create(
                "surface",
                i["surface"],
                room=i["room"],
                name="South",
                role="outer_wall",
                boundary="outdoors",
                area_m2=15,
                azimuth_deg=180,
            ),
            create("opening", i["opening"], surface=i["surface"], name="Window", width_m=2, height_m=1.5),
            create("duct_section", i["duct"], air_system=i["system"], name="Duct", room=i["room"], length_m=10),
            create("circuit", i["circuit"], name="Chilled", kind="chilled", flow_c=7, return_c=13),
            create("pipe_section", i["pipe"], circuit=i["circuit"], name="Pipe", air_system=i["system"], length_m=12),
        ]
        answer = test.commit(self.project, changes)
        assert answer.status_code == 200, answer.content
