"""The audit."""

from django.apps import AppConfig


class AuditConfig(AppConfig):
    """Names the feature for Django."""

    name = "dolmetsch.server.audit"
    label = "audit"
