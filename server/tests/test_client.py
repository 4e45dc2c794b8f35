"""The examples of docs/api.md run as they stand: fifty rooms over HTTP by the small client, and the core alone."""

import re
import sys
from pathlib import Path
from typing import Any

from django.contrib.auth import get_user_model
from django.test import LiveServerTestCase, SimpleTestCase

from calculations import service
from projects import document

ROOT = Path(__file__).resolve().parent.parent.parent
EXAMPLES = re.findall(r"```python\n(.*?)```", (ROOT / "docs" / "api.md").read_text(), flags=re.S)
PASSWORD = "a long enough phrase 7"


class OverHttp(LiveServerTestCase):
    def setUp(self) -> None:
        document.forget_all()
        service.forget_all()
        sys.path.insert(0, str(ROOT / "client"))
        self.addCleanup(sys.path.remove, str(ROOT / "client"))
        get_user_model().objects.create_user("Edda", password=PASSWORD)

    def test_fifty_rooms_and_their_peaks(self) -> None:
        from pendrum import Pendrum, Refused

        names: dict[str, Any] = {"Pendrum": Pendrum, "BASE": self.live_server_url, "NAME": "Edda", "PASSWORD": PASSWORD}
        exec(EXAMPLES[0], names)
        self.assertEqual(len(names["peaks"]), 50)
        # Rooms that are alike but for a quarter turn of their wall have the same gains: 28 W/m2 of people, lights and equipment at most.
        self.assertTrue(all(100.0 < watts < 40.0 * 25.0 for watts in names["peaks"].values()))
        server, project = names["server"], names["project"]
        with self.assertRaises(Refused) as refused:
            server.commit(
                project, "Too small", [{"op": "set", "kind": "room", "id": "r1", "fields": {"floor_area_m2": -1}}]
            )
        self.assertEqual(refused.exception.problem["faults"][0]["field"], "floor_area_m2")
        # The same by a token, without a session.
        token = server.call("POST", "/tokens", {"name": "nightly"})["token"]
        program = Pendrum(self.live_server_url, token)
        self.assertEqual(len(program.document(project)["objects"]["room"]), 50)
        with self.assertRaises(Refused):
            Pendrum(self.live_server_url, token + "x").document(project)
        with self.assertRaises(Refused):
            Pendrum(self.live_server_url).sign_in("Edda", "wrong wrong wrong")


class CoreAlone(SimpleTestCase):
    def test_a_hall_without_a_server(self) -> None:
        names: dict[str, Any] = {}
        exec(EXAMPLES[1], names)
        # By hand: a face that sees only itself has its convection alone; outdoors are 0.94 K colder for the clear sky; dry air of 200 m.
        wall = 30.0 * (20.0 + 10.0 + 0.5 * 4.14 * 11.0 / 24.14) / (1 / 2.5 + 0.16 / 0.04 + 1 / 24.14)
        density = 101_325.0 * (1.0 - 2.25577e-5 * 200.0) ** 5.2559 / (287.055 * 293.15)
        leak = 0.02 * density * 1006.0 * 30.0
        self.assertAlmostEqual(names["found"].heating.load_w, wall + leak, delta=1.0)
