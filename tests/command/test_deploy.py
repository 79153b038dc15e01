"""Files for machines of one's own: what can be held to the programs that read them is held here."""

import json
import os
import shlex
import ssl
import subprocess
import sys
import threading
import urllib.request
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from pathlib import Path

import pytest
import yaml
from benchmarks.soak.run import wait_until
from django.core.management import get_commands, load_command_class

from dolmetsch.command import certificate, paths
from dolmetsch.command.cluster.machines import FILES
from dolmetsch.command.database import find_free_port

UNITS = sorted(path.name for path in FILES.glob("*.service"))
ENVIRONMENT = {**os.environ, "PATH": os.environ["PATH"] + ":/usr/sbin:/sbin"}


def lines_of(name):
    """The lines of a unit, those that go on joined."""
    return (FILES / name).read_text().replace("\\\n", " ").splitlines()


def values_of(name, key):
    return [line.partition("=")[2] for line in lines_of(name) if line.startswith(f"{key}=")]


def read_compose():
    return yaml.safe_load((FILES / "compose.yaml").read_text())["services"]


def read_options(*words):
    """MariaDB's exit status, what it makes of the nodes' file and ``words``, and what it complains of."""
    command = ["mariadbd", f"--defaults-file={FILES / 'galera.cnf'}", *words, "--verbose", "--help"]
    if os.geteuid() == 0:
        command.insert(2, "--user=root")
    done = subprocess.run(command, capture_output=True, text=True, check=False, env=ENVIRONMENT)
    known = dict(line.split(None, 1) for line in done.stdout.splitlines() if len(line.split(None, 1)) == 2)
    return done.returncode, known, done.stderr


def test_the_nodes_options_are_known_to_mariadb_and_their_containers_agree():
    assert read_options("--no-such-option=1")[0] != 0
    options = (FILES / "galera.cnf").read_text()
    addresses = []
    for name in ("node1", "node2", "node3"):
        node = read_compose()[name]
        words = node["command"].replace("${DOLMETSCH_FIRST:-}", "").split()
        status, known, complaint = read_options(*words)
        assert (status, "unknown" in complaint) == (0, False), complaint
        assert known["wsrep-on"] == "TRUE"
        assert (known["wsrep-node-name"], known["innodb-autoinc-lock-mode"]) == (name, "2")
        # those of machines carry certificates of their own
        assert "ssl" not in known["wsrep-provider-options"]
        addresses.append(node["networks"]["kitchens"]["ipv4_address"])
        assert known["wsrep-node-address"] == addresses[-1]
    assert f"gcomm://{','.join(addresses)}" in options


def check_command(words):
    """Whether Python starts so: gunicorn with options it knows, or a command of ours with options it has."""
    assert words[0].endswith("/venv/bin/python")
    assert words[1] == "-m"
    if words[2] == "gunicorn":
        command = [sys.executable, "-m", "gunicorn", "--check-config", *words[3:]]
        env = {**os.environ, "PYTHONPATH": str(paths.ROOT / "src")}
        done = subprocess.run(command, capture_output=True, text=True, check=False, env=env, cwd=paths.ROOT)
        assert done.returncode == 0, done.stderr
        return
    assert words[2] == "django"
    command = load_command_class(get_commands()[words[3]], words[3])
    command.create_parser("django", words[3]).parse_args(words[4:])


@pytest.mark.parametrize("unit", UNITS)
def test_units_start_what_there_is(unit):
    (command,) = values_of(unit, "ExecStart")
    words = shlex.split(command)
    if words[0].startswith("/usr/local/bin/"):
        assert os.access(FILES / Path(words[0]).name, os.X_OK)
    else:
        check_command(words)


def test_containers_start_as_units_do_and_are_given_what_is_there():
    services = read_compose()
    units = {"app": "application", "collector": "collector", "migrate": "migrate"}
    for name, service in services.items():
        for volume in service.get("volumes", []):
            source = volume.split(":")[0]
            # the operator's own: a login and a certificate
            own = ("./check.cnf", "./kitchens.pem")
            assert not source.startswith("./") or source in own or (FILES / source).is_file(), source
        unit = units.get(name.rstrip("12"))
        if unit is None:
            continue
        assert "localhost/dolmetsch" in service["image"]
        (command,) = values_of(f"dolmetsch-{unit}.service", "ExecStart")
        assert service["entrypoint"][1:] == shlex.split(command)[1:]
        assert (FILES / service["env_file"]).is_file()
    # a lease is held by name: two of one name would both hear the devices
    assert "\nDOLMETSCH_NODE=" not in (FILES / "application.env").read_text()
    names = [service["hostname"] for service in services.values() if "hostname" in service]
    assert len(names) == len(set(names)) == 7


class Application(BaseHTTPRequestHandler):
    """Answers with the headers it was asked with."""

    def do_GET(self):
        said = json.dumps(dict(self.headers)).encode()
        self.send_response(200)
        self.send_header("Content-Length", str(len(said)))
        self.end_headers()
        self.wfile.write(said)

    def log_message(self, *words):
        pass


@pytest.fixture
def proxy(tmp_path, monkeypatch):
    """HAProxy with a certificate and two applications; its port, and what trusts it."""
    for name in ("AUTHORITY", "CERTIFICATE", "KEY"):
        monkeypatch.setattr(certificate, name, tmp_path / getattr(certificate, name).name)
    monkeypatch.setattr(certificate, "FOLDER", tmp_path)
    certificate._make("kitchens.example")
    both = tmp_path / "kitchens.pem"
    both.write_bytes(certificate.CERTIFICATE.read_bytes() + certificate.KEY.read_bytes())
    servers = [ThreadingHTTPServer(("127.0.0.1", 0), Application) for _ in range(2)]
    for server in servers:
        threading.Thread(target=server.serve_forever, daemon=True).start()
    port = find_free_port()
    places = {
        "BIND": port,
        **{f"APP{at}": server.server_address[1] for at, server in enumerate(servers, start=1)},
        **{name: find_free_port() for name in ("RECORDS", "NODE1", "NODE2", "NODE3")},
    }
    env = ENVIRONMENT | {f"DOLMETSCH_{name}": f"127.0.0.1:{place}" for name, place in places.items()}
    env |= {"DOLMETSCH_PROXY_SOCKET": str(tmp_path / "proxy.sock"), "DOLMETSCH_CERTIFICATE": str(both)}
    env["DOLMETSCH_GALERA_CHECK"] = str(FILES / "galera-check")
    with (tmp_path / "proxy.log").open("w") as log:
        process = subprocess.Popen(
            ["haproxy", "-db", "-f", str(FILES / "haproxy.cfg")], env=env, stdout=log, stderr=log
        )
    yield port, ssl.create_default_context(cafile=certificate.AUTHORITY)
    process.terminate()
    process.wait(20)
    for server in servers:
        server.shutdown()
        server.server_close()


def test_the_proxy_speaks_tls_and_says_itself_who_asks(proxy):
    port, trusting = proxy

    def ask(path):
        spoofed = {"X-Forwarded-For": "10.9.9.9", "X-Forwarded-Proto": "http", "X-Request-Id": "mine"}
        request = urllib.request.Request(f"https://127.0.0.1:{port}{path}", headers=spoofed)
        with urllib.request.urlopen(request, context=trusting, timeout=5) as answer:
            return {name.title(): value for name, value in json.loads(answer.read()).items()}

    assert wait_until(lambda: ask("/"), patience=20) < 20
    asked = ask("/api/session")
    assert (asked["X-Forwarded-For"], asked["X-Forwarded-Proto"]) == ("127.0.0.1", "https")
    assert asked["X-Request-Id"] != "mine"
    with pytest.raises(urllib.error.HTTPError, match="404"):
        ask("/metrics")
