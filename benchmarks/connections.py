"""Signed-in keep-alive connections to the API, one a thread."""

import http.client
import json
import threading
import uuid
from typing import Final

#: Nobody waits longer for an answer.
MOST_SECONDS: Final = 60


class Pool:
    """``get`` and ``post`` as the demo's cook; anything but success raises. ``ask`` gives what was answered.

    ``cookies``: of someone else who is signed in already.
    """

    def __init__(self, port: int, cookies: dict[str, str] | None = None) -> None:
        self.port = port
        self.local = threading.local()
        self.cookies, self.token = "", ""
        if cookies is None:
            self._sign_in()
        else:
            self._keep(cookies)

    def _sign_in(self) -> None:
        self._take(self._call("GET", "/api/session"))
        self._take(self._call("POST", "/api/session", {"username": "maren", "password": "salt-lantern"}))

    def _take(self, response) -> None:
        found = dict(pair.split("=", 1) for pair in filter(None, self.cookies.split("; ")))
        for name, value in response.getheaders():
            if name.lower() == "set-cookie":
                key, cookie = value.split(";")[0].split("=", 1)
                found[key] = cookie
        self._keep(found)

    def _keep(self, cookies: dict[str, str]) -> None:
        self.cookies = "; ".join(f"{key}={value}" for key, value in cookies.items())
        self.token = cookies.get("csrftoken", "")

    def ask(self, method: str, path: str, body: dict | None = None):
        """The response, and what it holds."""
        sent = None if body is None else json.dumps(body)
        headers = {"Cookie": self.cookies, "X-CSRFToken": self.token, "Content-Type": "application/json"}
        # as the weigh view asks: recorded, without a page
        headers |= {"Idempotency-Key": str(uuid.uuid4()), "Prefer": "return=minimal"}
        try:
            return self._send(method, path, sent, headers)
        except (http.client.HTTPException, ConnectionError):
            # an idle connection was closed; the same key makes sending again safe
            self.close()
            return self._send(method, path, sent, headers)

    def close(self) -> None:
        """End this thread's connection; the next call opens another."""
        if hasattr(self.local, "connection"):
            self.local.connection.close()
            del self.local.connection

    def _call(self, method: str, path: str, body: dict | None = None):
        return self._succeed(method, path, body)[0]

    def read(self, method: str, path: str, body: dict | None = None):
        """What was answered, read as JSON."""
        return json.loads(self._succeed(method, path, body)[1])

    def _succeed(self, method: str, path: str, body: dict | None):
        response, answer = self.ask(method, path, body)
        if response.status >= 300:
            raise RuntimeError(f"{method} {path}: {response.status} {answer[:300]!r}")
        return response, answer

    def _send(self, method: str, path: str, sent: str | None, headers: dict[str, str]):
        if not hasattr(self.local, "connection"):
            self.local.connection = http.client.HTTPConnection("127.0.0.1", self.port, timeout=MOST_SECONDS)
        self.local.connection.request(method, path, sent, headers)
        response = self.local.connection.getresponse()
        return response, response.read()

    def get(self, path: str) -> None:
        self._call("GET", path)

    def post(self, path: str, body: dict) -> None:
        self._call("POST", path, body)
