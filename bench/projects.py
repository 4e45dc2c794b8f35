"""Memory of a server that opens many projects in turn: `python bench/projects.py [projects] [rooms]`."""

import os
import sys
import tempfile
import time
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
sys.path[:0] = [str(ROOT), str(ROOT / "server")]
os.environ |= {"DJANGO_SETTINGS_MODULE": "config.settings", "PENDRUM_DEMO": "1", "PENDRUM_VAR": tempfile.mkdtemp()}


def megabytes() -> float:
    """Resident memory of this process."""
    lines = Path("/proc/self/status").read_text().splitlines()
    return float(next(line for line in lines if line.startswith("VmRSS")).split()[1]) / 1024.0


def main() -> None:
    """Make them, open each one after the other as a window does, and tell the memory on the way."""
    count, rooms = (int(text) for text in (sys.argv[1:] + ["50", "60"])[:2]) if len(sys.argv) > 2 else (50, 60)
    import django

    django.setup()
    from django.core.management import call_command

    from accounts.demo import demo_engineer
    from calculations import service
    from config.memory import calm_memory
    from demo.trial import load_trial
    from projects import document

    calm_memory()
    call_command("migrate", verbosity=0)
    owner = demo_engineer()
    projects = [load_trial(owner, rooms) for _ in range(count)]
    document.forget_all()
    service.forget_all()
    print(f"{count} projects of {rooms} rooms made; {megabytes():.0f} MB before the first is opened")
    began, most = time.monotonic(), 0.0
    for number, project in enumerate(projects, 1):
        service.whole(document.load_document(project))
        most = max(most, megabytes())
        if number % 10 == 0:
            print(f"after {number}: {megabytes():.0f} MB")
    print(f"most {most:.0f} MB; {(time.monotonic() - began) / count:.2f} s each")


if __name__ == "__main__":
    main()
