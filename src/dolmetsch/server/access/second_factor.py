"""The second factor: codes of an authenticator app (TOTP, RFC 6238), and recovery codes. By django-otp."""

from base64 import b32encode
from typing import Any, Final
from urllib.parse import quote, urlencode

import segno
from django.db import transaction
from django_otp.plugins.otp_static.models import StaticDevice, StaticToken
from django_otp.plugins.otp_totp.models import TOTPDevice

from dolmetsch.server.access.one_time import make_code
from dolmetsch.server.kitchens.models import User
from dolmetsch.server.problems import DomainError, FieldProblem, refuse_fields

RECOVERY_CODES: Final = 8
_DIGITS: Final = 6


def has_second_factor(user: User) -> bool:
    """Whether signing in asks ``user`` for a code."""
    return bool(TOTPDevice.objects.filter(user=user, confirmed=True).exists())


def check_code(user: User, code: str) -> bool:
    """Whether ``code`` is the app's of now, or one of the recovery codes, which is used up by it."""
    typed = code.replace(" ", "").replace("-", "").upper()
    # distinguished by their length: a wrong one of one kind slows that kind alone
    kind: Any = TOTPDevice if len(typed) == _DIGITS else StaticDevice
    with transaction.atomic():
        # locked, so that one code opens one session
        devices = kind.objects.select_for_update().filter(user=user, confirmed=True)
        return any(device.verify_token(typed) for device in devices)


def begin_second_factor(user: User) -> tuple[str, str]:
    """A new key for an app, not asked for yet: the address its QR code holds, and that code as SVG."""
    with transaction.atomic():
        TOTPDevice.objects.filter(user=user, confirmed=False).delete()
        device = TOTPDevice.objects.create(user=user, name="app", confirmed=False)

    secret = b32encode(device.bin_key).decode().rstrip("=")
    label = quote(f"Dolmetsch:{user.get_username()}")
    address = f"otpauth://totp/{label}?{urlencode({'secret': secret, 'issuer': 'Dolmetsch'})}"
    return secret, segno.make(address, error="m").svg_inline(scale=5, border=2)


def confirm_second_factor(user: User, code: str) -> list[str]:
    """From now on signing in asks for the app's code; gives the recovery codes, shown this once.

    Raises:
        DomainError: bad_fields (the code is not the app's), not_begun.
    """
    with transaction.atomic():
        # against two tabs that confirm at once: one set of recovery codes is made
        device = TOTPDevice.objects.select_for_update().filter(user=user, confirmed=False).first()
        if device is None:
            raise DomainError("not_begun", 409, "Not set up", "Scan the code with your app first.")
        if not device.verify_token(code.replace(" ", "")):
            said = "That is not the code the app shows now. Check that the phone's clock is right."
            raise refuse_fields([FieldProblem(path="code", code="wrong", message=said)])
        TOTPDevice.objects.filter(user=user, confirmed=True).delete()
        device.confirmed = True
        device.save()
        return _renew_recovery(user)


def end_second_factor(user: User) -> None:
    """Signing in asks for the password alone again."""
    with transaction.atomic():
        TOTPDevice.objects.filter(user=user).delete()
        StaticDevice.objects.filter(user=user).delete()


def _renew_recovery(user: User) -> list[str]:
    StaticDevice.objects.filter(user=user).delete()
    device = StaticDevice.objects.create(user=user, name="recovery")
    codes = [make_code() for _ in range(RECOVERY_CODES)]
    StaticToken.objects.bulk_create(StaticToken(device=device, token=code.replace("-", "")) for code in codes)
    return codes
