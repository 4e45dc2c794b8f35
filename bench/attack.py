"""Attacks a server of its own: requests of wrong shape over all routes, hostile files, large change sets, stalled clients, kills.

    python bench/attack.py [--requests 10000] [--kills 3] [--seed 1] [--patience 1]

Prints one line a part and ends with 1 where something fell: an answer of 5xx other than 503, an answer that took over 5 s
(10 s for the last of them while a large change set is taken), a body that is no JSON, a document that differs from the journal,
a fault without a line in the log. The seed makes it the same each time.
"""

import argparse
import io
import json
import os
import random
import socket
import sys
import threading
import time
import zipfile
from pathlib import Path
from typing import Any

import requests
from trial_server import ROOT, SLOWEST_S, Client, Server

_NONSENSE: tuple[Any, ...] = (
    None, True, -1, 0, 1e308, -1e308, 2**70, "", "x" * 5000, "\u0000", "NaN", "../../etc", "<b>", [], [[]], {}, {"a": {"b": []}},
    ["a", 1, None], "📐" * 40, "2026-13-40", 0.1, 99999, "'; DROP TABLE x; --",
)  # fmt: skip


def routes() -> list[tuple[str, str, dict[str, Any]]]:
    """Method, path and description of every route."""
    paths = json.loads((ROOT / "server" / "openapi.json").read_text())["paths"]
    return [(method.upper(), path, about) for path, methods in paths.items() for method, about in methods.items()]


def wrong_requests(client: Client, project: str, count: int, dice: random.Random) -> None:
    """Requests of wrong shape over all routes, and edits with wrong values over all kinds and fields."""
    every = routes()
    kinds = json.loads((ROOT / "docs" / "project.schema.json").read_text())["properties"]["objects"]["properties"]
    definitions = json.loads((ROOT / "docs" / "project.schema.json").read_text())["$defs"]
    document = client.json(f"/api/projects/{project}/document")
    for _ in range(count):
        if dice.random() < 0.5:
            method, path, about = dice.choice(every)
            if path.endswith("/state") or path == "/api/projects":
                continue
            filled, query = path, {}
            for part in about.get("parameters", []):
                value = dice.choice((project, "x", "7", "-1", "%00", "a" * 300, "1e999", "..", "room", "schedule"))
                if part["in"] == "path":
                    value = project if part["name"] == "project_id" and dice.random() < 0.8 else value
                    filled = filled.replace("{" + part["name"] + "}", str(value))
                elif dice.random() < 0.8:
                    query[part["name"]] = dice.choice((value, "7", "nan", "-5", "99999999999999999999"))
            body = dice.choice((
                {"json": dice.choice(_NONSENSE)}, {"data": b"\xff\xfe{"}, {"data": b"{" * 3000}, {},
                {"files": {"file": ("f.xlsx", os.urandom(200))}}, {"json": {"changes": _NONSENSE[:5], "base_version": "x"}},
            ))  # fmt: skip
            if method == "DELETE" and dice.random() < 0.9:
                continue
            client.send(method, filled, params=query, **(body if method != "GET" else {}))
            continue
        kind = dice.choice(list(kinds))
        fields = list(definitions[f"object_{kind}"]["properties"])
        rows = document["objects"].get(kind) or [{"id": "none"}]
        change = {
            "op": dice.choice(("set", "set", "set", "create", "delete", "SET", 7)), "kind": dice.choice((kind, kind, kind, "ghost")),
            "id": dice.choice((dice.choice(rows)["id"], "new-one", "", "x" * 41, "a b")),
            "fields": {dice.choice(fields): dice.choice(_NONSENSE) for _ in range(dice.randint(0, 3))},
        }  # fmt: skip
        if change["op"] == "delete":
            change["id"] = "none"
        client.send("POST", f"/api/projects/{project}/changes", json={
            "base_version": dice.choice((document["version"], 0, 10**9, -1)), "label": dice.choice(("x", "", "y" * 161)),
            "changes": [change] * dice.choice((1, 1, 1, 2)),
        })  # fmt: skip


def extremes(client: Client, project: str, dice: random.Random) -> None:
    """Every number of every kind set to the ends of its range, one after the other, and taken back: results stay numbers."""
    definitions = json.loads((ROOT / "docs" / "project.schema.json").read_text())["$defs"]
    document = client.json(f"/api/projects/{project}/document")
    for kind, rows in document["objects"].items():
        if not rows:
            continue
        row = dice.choice(rows)
        for field, schema in definitions[f"object_{kind}"]["properties"].items():
            for option in [schema, *schema.get("anyOf", [])]:
                for end in ("minimum", "maximum"):
                    if end not in option:
                        continue
                    path = f"/api/projects/{project}"
                    version = client.json(f"{path}/since?version=0")["version"]
                    change = {"op": "set", "kind": kind, "id": row["id"], "fields": {field: option[end]}}
                    answer = client.send(
                        "POST", f"{path}/changes", json={"base_version": version, "label": "end", "changes": [change]}
                    )
                    if answer is None or answer.status_code != 200 or answer.json()["version"] == version:
                        continue
                    if answer.json()["calculation_fault"]:
                        client.fallen.append(f"{kind} {field} {option[end]}: calculation fault")
                    text = client.send("GET", f"{path}/results", limit=10)
                    if text is not None and text.status_code == 200:
                        _implausible(client, f"{kind} {field} {option[end]}", text.json())
                    client.send("POST", f"{path}/undo", params={"base_version": version + 1})


def _implausible(client: Client, what: str, results: dict[str, Any]) -> None:
    """Loads beyond a gigawatt without a snag."""
    snags = len(results["changed"].get("snag", {}))
    for identity, room in results["changed"].get("room", {}).items():
        cooling = (room["cooling"] or {}).get("sensible_w", 0.0)
        if max(abs(cooling or 0.0), abs(room["heating_w"] or 0.0)) > 1e9 and not snags:
            client.fallen.append(f"{what}: room {identity} beyond 1e9 W without a word")


def hostile_files(dice: random.Random) -> list[tuple[str, str, bytes]]:
    """Where, name and content of files that stopped everyone once, or might."""
    packed = io.BytesIO()
    with zipfile.ZipFile(packed, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr("xl/sharedStrings.xml", "<sst>" + "<si><t>x</t></si>" * 9_000_000 + "</sst>")
    sheet = io.BytesIO()
    with zipfile.ZipFile(sheet, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr(
            "[Content_Types].xml", '<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"/>'
        )
        archive.writestr(
            "xl/worksheets/sheet1.xml", "<worksheet><sheetData>" + "<row><c><v>1</v></c></row>" * 3_000_000
        )
    found = [("rooms", "strings.xlsx", packed.getvalue()), ("rooms", "cells.xlsx", sheet.getvalue())]
    head, tail = "0\nSECTION\n2\nENTITIES\n", "0\nENDSEC\n0\nEOF\n"
    for radius in ("1e6", "1e12", "1e300", "nan", "inf", "-1", "0", "x"):
        arc = f"0\nARC\n8\n0\n10\n0\n20\n0\n40\n{radius}\n50\n0\n51\n270\n"
        found += [("drawing", f"arc{radius}.dxf", (head + arc + tail).encode())]
    found.append(
        (
            "drawing",
            "arcs.dxf",
            (head + "0\nARC\n8\n0\n10\n5\n20\n5\n40\n900\n50\n0\n51\n270\n" * 59_000 + tail).encode(),
        )
    )
    found.append(
        ("drawing", "lines.dxf", (head + "0\nLINE\n8\n0\n10\n0\n20\n0\n11\n1\n21\n1\n" * 300_000 + tail).encode())
    )
    entities = "<!DOCTYPE a [<!ENTITY b 'x'>" + "".join(f"<!ENTITY c{i} '{'&b;' * 50}'>" for i in range(20)) + "]>"
    found.append(("rooms", "entities.xml", (entities + "<gbXML>&c19;</gbXML>").encode()))
    found.append(("rooms", "deep.xml", b"<gbXML xmlns='http://www.gbxml.org/schema'>" + b"<a>" * 20_000))
    found.append(("rooms", "long.csv", b"Number,Name\n" + b"1,a\n" * 400_000))
    found.append(("rooms", "wide.csv", b"Number," + b"x," * 200_000 + b"\n1,\n"))
    found.append(("weather", "one_line.csv", b"1," * 6_000_000))
    found.append(("project", "uses.json", json.dumps({"format": "pendrum-project", "version": 1, "objects": {
        "use": [{"id": f"u{i}", "name": f"U {i}"} for i in range(20_000)]}}).encode()))  # fmt: skip
    for line in ("IFCSPACE($,$,$,$)", "IFCSPACE(7,'x',*,$,$,#1,$)", "IFCLOCALPLACEMENT(#1,#1)", "IFCEXTRUDEDAREASOLID($,$,$,$)",
                 "IFCRELAGGREGATES('a',$,$,$,#1,(#1))", "IFCRECTANGLEPROFILEDEF(.AREA.,$,$,$,$)"):  # fmt: skip
        model = f"ISO-10303-21;HEADER;FILE_DESCRIPTION((''),'2;1');FILE_NAME('','',(''),(''),'','','');FILE_SCHEMA(('IFC4'));ENDSEC;DATA;\n#1={line};\nENDSEC;END-ISO-10303-21;"
        found.append(("rooms", "model.ifc", model.encode()))
    endings = ("xlsx", "csv", "xml", "ifc", "dxf", "png", "json", "txt")
    while len(found) < 150:
        ending = dice.choice(endings)
        where = {"dxf": "drawing", "png": "drawing", "json": "project", "txt": "weather"}.get(ending, "rooms")
        magic = {"xlsx": b"PK\x03\x04", "png": b"\x89PNG\r\n\x1a\n", "json": b"{", "xml": b"<gbXML"}.get(ending, b"")
        found.append((where, f"noise.{ending}", magic + dice.randbytes(dice.choice((0, 10, 1000, 100_000)))))
    return found


def send_files(client: Client, project: str, files: list[tuple[str, str, bytes]]) -> None:
    """Each file to where it belongs; each within 5 s."""
    level = client.json(f"/api/projects/{project}/document")["objects"]["level"][0]["id"]
    paths = {
        "rooms": f"/api/projects/{project}/rooms/read", "drawing": f"/api/projects/{project}/levels/{level}/drawing",
        "weather": f"/api/projects/{project}/weather", "project": "/api/projects/file",
    }  # fmt: skip
    for where, name, content in files:
        limit = SLOWEST_S + 0.7 * len(content) / 1e6
        answer = client.send("POST", paths[where], limit=limit, files={"file": (name, content)})
        if answer is not None and answer.status_code == 202:
            ended(client, answer.json()["id"], limit)


_TASK_S = 10.0


def ended(client: Client, task: str, limit: float) -> None:
    """Wait for a task; one that is not over in time is a fault."""
    begun, most = time.monotonic(), (limit + _TASK_S) * client.patience
    while client.json(f"/api/tasks/{task}")["state"] in ("waiting", "running"):
        if time.monotonic() - begun > most:
            raise SystemExit(f"task {task} is not over after {most:.0f} s")
        time.sleep(0.05)


def stalled(server: Server, client: Client) -> None:
    """Clients that send a head and then nothing, or a byte now and then: others are answered all the same."""
    sockets = []
    for _ in range(24):
        slow = socket.create_connection(("127.0.0.1", server.port))
        slow.sendall(b"POST /api/projects/file HTTP/1.1\r\nHost: localhost\r\nContent-Length: 900000\r\n\r\nxx")
        sockets.append(slow)
    for _ in range(10):
        client.send("GET", "/api/session", limit=2.0)
        for slow in sockets:
            slow.sendall(b"x")
    for slow in sockets:
        slow.close()


def large_change_sets(server: Server, client: Client, project: str) -> None:
    """While somebody creates 20,000 surfaces, others read and edit their own project."""
    other = client.send("POST", "/api/projects", json={"name": "Another"})
    assert other is not None
    mine = other.json()["id"]
    document = client.json(f"/api/projects/{mine}/document")
    busy = Client(server, client.patience)
    room = document["objects"]["level"][0]["id"]
    changes = [{"op": "create", "kind": "room", "id": "r", "fields": {"number": "1", "name": "R", "level": room}}]
    changes += [{"op": "create", "kind": "surface", "id": f"s{i}", "fields": {
        "room": "r", "name": f"S {i}", "role": "outer_wall", "boundary": "outdoors", "area_m2": 1}} for i in range(19_999)]  # fmt: skip
    done = threading.Event()

    def work() -> None:
        busy.send(
            "POST",
            f"/api/projects/{mine}/changes",
            limit=60,
            json={"base_version": document["version"], "label": "x", "changes": changes},
        )
        done.set()

    threading.Thread(target=work).start()
    site = client.json(f"/api/projects/{project}/document")["objects"]["site"][0]["id"]
    turn = 0
    while not done.is_set() or turn < 3:
        turn += 1
        version = client.json(f"/api/projects/{project}/since?version=0")["version"]
        change = {"op": "set", "kind": "site", "id": site, "fields": {"winter_dry_bulb_c": -10 - turn % 5}}
        client.send(
            "POST",
            f"/api/projects/{project}/changes",
            limit=10.0,
            json={"base_version": version, "label": "x", "changes": [change]},
        )
    client.fallen += busy.fallen


def kills(server: Server, client: Client, project: str, count: int, dice: random.Random) -> list[float]:
    """End the server while somebody edits: every acknowledged edit is there, and nothing halfway; seconds to come back."""
    room = client.json(f"/api/projects/{project}/document")["objects"]["room"][0]["id"]
    back = []
    for turn in range(count):
        acknowledged: list[str] = []
        stop = threading.Event()
        editor = Client(server)

        def edit(
            turn: int = turn,
            editor: Client = editor,
            stop: threading.Event = stop,
            acknowledged: list[str] = acknowledged,
        ) -> None:
            number = 0
            while not stop.is_set():
                number += 1
                try:
                    version = editor.session.get(
                        f"{server.base}/api/projects/{project}/since?version=0", timeout=20
                    ).json()["version"]
                    name = f"Name {turn}-{number}"
                    change = {"op": "set", "kind": "room", "id": room, "fields": {"name": name}}
                    body = {"base_version": version, "label": "x", "changes": [change]}
                    answer = editor.session.post(f"{server.base}/api/projects/{project}/changes", json=body, timeout=20)
                    if answer.status_code == 200:
                        acknowledged.append(name)
                except (requests.RequestException, ValueError):
                    return

        thread = threading.Thread(target=edit)
        thread.start()
        time.sleep(dice.uniform(0.5, 2.0))
        server.kill()
        stop.set()
        thread.join()
        back.append(server.start())
        now = next(
            r["name"] for r in client.json(f"/api/projects/{project}/document")["objects"]["room"] if r["id"] == room
        )
        said = acknowledged[-1] if acknowledged else ""
        # The one under way may have been saved without being acknowledged.
        following = f"Name {turn}-{int(said.rsplit('-', 1)[-1]) + 1}" if said else f"Name {turn}-1"
        if said and now not in (said, following):
            client.fallen.append(f"kill {turn}: {now!r} is there, {said!r} was acknowledged")
    return back


def same_after_replay(client: Client, project: str) -> None:
    """Undoing nothing, the document over HTTP and its file tell the same."""
    document = client.json(f"/api/projects/{project}/document")["objects"]
    file = client.json(f"/api/projects/{project}/project.json")["objects"]
    for kind, rows in document.items():
        if sorted(rows, key=lambda r: r["id"]) != sorted(file[kind], key=lambda r: r["id"]):
            client.fallen.append(f"{kind} differs between the document and its file")


def memory_mb(server: Server) -> float:
    """What the server holds now [MB]."""
    assert server.process is not None
    text = Path(f"/proc/{server.process.pid}/status").read_text()
    return int(text.split("VmRSS:")[1].split()[0]) / 1024


def main() -> int:
    """Run all parts; 1 where something fell."""
    words = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    words.add_argument("--requests", type=int, default=10_000)
    words.add_argument("--kills", type=int, default=3)
    words.add_argument("--seed", type=int, default=1)
    words.add_argument("--files", type=int, default=150)
    words.add_argument(
        "--patience", type=float, default=1.0, help="multiplies the limits of time, where other work runs beside it"
    )
    options = words.parse_args()
    dice = random.Random(options.seed)
    server = Server()
    try:
        client = Client(server, options.patience)
        project = client.json("/api/session")["projects"][0]["id"]
        parts = {
            "requests": lambda: wrong_requests(client, project, options.requests, dice),
            "ends of ranges": lambda: extremes(client, project, dice),
            "files": lambda: send_files(client, project, hostile_files(dice)[: options.files]),
            "stalled clients": lambda: stalled(server, client),
            "large change sets": lambda: large_change_sets(server, client, project),
            "kills": lambda: kills(server, client, project, options.kills, dice),
            "document and file": lambda: same_after_replay(client, project),
        }
        if options.requests < 1000:
            del parts["ends of ranges"]
        for name, part in parts.items():
            before, count, client.slowest = len(client.fallen), client.count, 0.0
            found = part()
            print(f"{name}: {client.count - count} requests, slowest {client.slowest:.1f} s, {memory_mb(server):.0f} MB, "
                  f"{len(client.fallen) - before} fell" + (f"; back after {max(found):.1f} s" if found else ""), flush=True)  # fmt: skip
        log = server.log.read_text() if server.log.exists() else ""
        for line in client.fallen:
            number = line.split("number ")[1][:8] if "number " in line else ""
            if number and number not in log:
                print(f"fault {number} is not in the log")
        print(*(line[:240] for line in client.fallen[:40]), sep="\n")
        return 1 if client.fallen else 0
    finally:
        server.kill()


if __name__ == "__main__":
    sys.exit(main())
