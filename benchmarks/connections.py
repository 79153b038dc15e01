"""A few signed-in keep-alive connections to the API, one a thread."""

import http.client
import json
import threading
import uuid


class Pool:
    """``get`` and ``post`` below one address; anything but success raises."""

    def __init__(self, port: int) -> None:
        self.port = port
        self.local = threading.local()
        self.cookies, self.token = "", ""
        self._sign_in()

    def _sign_in(self) -> None:
        self._take(*self._call("GET", "/api/session"))
        body = json.dumps({"username": "maren", "password": "salt-lantern"})
        self._take(*self._call("POST", "/api/session", body))

    def _take(self, response, _body) -> None:
        found = dict(pair.split("=", 1) for pair in filter(None, self.cookies.split("; ")))
        for name, value in response.getheaders():
            if name.lower() == "set-cookie":
                key, cookie = value.split(";")[0].split("=", 1)
                found[key] = cookie
        self.cookies = "; ".join(f"{key}={value}" for key, value in found.items())
        self.token = found.get("csrftoken", "")

    def _call(self, method: str, path: str, body: str | None = None):
        headers = {"Cookie": self.cookies, "X-CSRFToken": self.token, "Content-Type": "application/json"}
        # as the weigh view asks: recorded, without a page
        headers |= {"Idempotency-Key": str(uuid.uuid4()), "Prefer": "return=minimal"}
        try:
            response, answer = self._send(method, path, body, headers)
        except (http.client.HTTPException, ConnectionError):
            # an idle connection was closed; the same key makes sending again safe
            del self.local.connection
            response, answer = self._send(method, path, body, headers)
        if response.status >= 300:
            raise RuntimeError(f"{method} {path}: {response.status} {answer[:300]!r}")
        return response, answer

    def _send(self, method: str, path: str, body: str | None, headers: dict[str, str]):
        if not hasattr(self.local, "connection"):
            self.local.connection = http.client.HTTPConnection("127.0.0.1", self.port)
        self.local.connection.request(method, path, body, headers)
        response = self.local.connection.getresponse()
        return response, response.read()

    def get(self, path: str) -> None:
        self._call("GET", path)

    def post(self, path: str, body: dict) -> None:
        self._call("POST", path, json.dumps(body))
