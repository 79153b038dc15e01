"""Mails: through the mail server of Django's settings, else written into a folder."""

import logging
from smtplib import SMTPException

from django.conf import settings
from django.core.exceptions import ValidationError
from django.core.mail import send_mail
from django.core.validators import validate_email

from dolmetsch.server.problems import FieldProblem, refuse_fields

log = logging.getLogger(__name__)

INVITED = """{by} invites you into the kitchen {kitchen}, as {role}.

Open this link on your phone or computer within two days:
{link}

Or open {address} and type the code {code}
"""


def refuse_bad_address(address: str) -> None:
    """Refuse what is no mail address.

    Raises:
        DomainError: bad_fields.
    """
    try:
        validate_email(address)
    except ValidationError as error:
        said = f"“{address}” is no mail address."
        raise refuse_fields([FieldProblem(path="mail", code="unreadable", message=said)]) from error


def send(address: str, *, subject: str, text: str) -> bool:
    """Send a mail; whether it went out. Where it did not, the link on the screen is still there."""
    try:
        return bool(send_mail(subject, text, settings.DEFAULT_FROM_EMAIL, [address]))
    except (SMTPException, OSError) as error:
        log.warning("mail not sent: %s", error)
        return False
