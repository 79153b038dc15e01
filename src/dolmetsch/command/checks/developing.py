"""What developers run: scripts beside a scratch record store, and the API document written again."""

from subprocess import run

from dolmetsch.command import paths, serving
from dolmetsch.command.database import close_scratch, open_scratch
from dolmetsch.command.machine import set_up
from dolmetsch.command.telling import TroubleError, must, say


def write_api() -> None:
    """Write the API document and the client's types again."""
    set_up(for_tests=False)
    database = open_scratch()
    try:
        document = paths.ROOT / "docs" / "openapi.json"
        export = [str(paths.PYTHON), "-m", "django", "export_openapi_schema", "--indent", "2"]
        export += ["--api", "dolmetsch.server.config.api.api", "--output", str(document)]
        log = paths.LOGS / "api.log"
        must(export, doing="the API document", log=log, env=serving.server_environment(database))
        must(["npm", "run", "api-types"], doing="the client's types", log=log, cwd=paths.WEB)
    finally:
        close_scratch(database)
    say(f"Written: {document}, web/src/shared/api/schema.ts")


def ask_advisories() -> None:
    """Ask what is known against the Python and npm packages; where nobody answers, say so.

    Raises:
        TroubleError: something is known against one.
    """
    set_up(for_tests=True)
    known = False
    audit = [str(paths.VENV / "bin" / "pip-audit"), "-r", str(paths.ROOT / "requirements-test.txt")]
    asked = {
        "Python packages": ([*audit, "--disable-pip", "--no-deps"], "Found ", "could not be audited"),
        "npm packages": (["npm", "audit", "--omit=dev"], "vulnerabilit", "audit endpoint returned an error"),
    }
    for words, (command, found, silent) in asked.items():
        done = run(command, cwd=paths.WEB, capture_output=True, text=True, check=False)
        output = done.stdout + done.stderr
        if silent in output or (done.returncode and found not in output):
            say(f"{words}: nobody answered; ask again with network.")
        elif done.returncode:
            known = True
            print(output, flush=True)
        else:
            say(f"{words}: nothing is known against them.")
    if known:
        raise TroubleError("Something is known against a package; see above.")


def run_script(script: str, words: list[str]) -> None:
    """Run a script of the project's, or a module (``a.b``), beside a scratch record store.

    Raises:
        TroubleError: the script failed.
    """
    set_up(for_tests=True)
    database = open_scratch()
    try:
        environment = {**serving.server_environment(database), "DOLMETSCH_DEMO": "1"}
        environment["PYTHONPATH"] += f":{paths.ROOT}"
        named = [str(paths.ROOT / script)] if script.endswith(".py") else ["-m", script]
        status = run([str(paths.PYTHON), *named, *words], env=environment, check=False).returncode
    finally:
        close_scratch(database)
    if status:
        raise TroubleError(f"{script} failed.")
