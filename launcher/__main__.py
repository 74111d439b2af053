"""Sets up what a command needs, then hands over to it. No logic of the job stands here."""

import os
import sys

from launcher import environment
from launcher.steps import ROOT, StepFailed


def main(arguments: list[str]) -> int:
    command = arguments[0] if arguments else "--help"
    try:
        # Imported late: the small commands of the job start faster without them.
        if command in {"test", "bench"}:
            environment.ensure_development()
            from launcher import suite

            return suite.run_tests(arguments[1:]) if command == "test" else suite.run_bench(arguments[1:])
        serves = command in {"demo", "serve"} and "--help" not in arguments
        if serves:
            from launcher import frontend, system

            frontend.require_node_to_build()
        environment.ensure_runtime()
        if serves:
            system.ensure_packages(system.needed_to_serve())
            frontend.ensure_build()
    except StepFailed as failure:
        print(f"tidy: {failure}", file=sys.stderr)
        return 1
    os.environ.setdefault("TIDY_TRUNK_HOME", str(ROOT / ".tidy"))
    os.environ["TIDY_TRUNK_WEB"] = str(ROOT / "web" / "dist")
    if not environment.is_running_in_it():
        python = str(environment.python())
        os.execv(python, [python, "-m", "tidy_trunk", *arguments])  # signals then go straight through
    from tidy_trunk.cli.main import run

    sys.argv = ["tidy", *arguments]
    return run()


if __name__ == "__main__":
    try:
        sys.exit(main(sys.argv[1:]))
    except KeyboardInterrupt:
        sys.exit(130)
