"""Answers of the API are compressed for whoever takes that; files, pictures and streams are not."""

from django.http import HttpRequest
from django.http.response import HttpResponseBase
from django.middleware.gzip import GZipMiddleware


class CompressJson(GZipMiddleware):
    """Django's compression, with its random padding against guessing by length, for JSON alone."""

    def process_response(self, request: HttpRequest, response: HttpResponseBase) -> HttpResponseBase:
        """What is answered, compressed where it is JSON and gets smaller by it."""
        if response.get("Content-Type", "").startswith(("application/json", "application/problem+json")):
            return super().process_response(request, response)
        return response
