"""Secrets sealed by a passphrase: scrypt (RFC 7914) and AES-GCM, in the installed Python, which has both."""

import getpass
import os
import sys
from subprocess import run
from typing import Final

from dolmetsch.command import paths
from dolmetsch.command.telling import TroubleError

#: Where a passphrase may be given instead of being asked for.
VARIABLE: Final = "DOLMETSCH_PASSPHRASE"
SHORTEST: Final = 10
_SALT: Final = 16
_NONCE: Final = 12


def ask_passphrase(*, twice: bool) -> str:
    """The passphrase: from DOLMETSCH_PASSPHRASE, or asked for.

    Raises:
        TroubleError: too short, typed differently, or nobody there to ask.
    """
    given = os.environ.get(VARIABLE)
    if given is None:
        if not sys.stdin.isatty():
            raise TroubleError(f"Nobody is there to type a passphrase; set {VARIABLE}.")
        given = getpass.getpass("Passphrase for the secrets: ")
        if twice and getpass.getpass("Once more: ") != given:
            raise TroubleError("The two passphrases differ; nothing was written.")
    if len(given) < SHORTEST:
        raise TroubleError(f"A passphrase has {SHORTEST} letters at least; nothing was written.")
    return given


def seal(content: bytes, passphrase: str) -> bytes:
    """``content``, readable again by ``passphrase`` alone."""
    return _run("seal", content, passphrase)


def unseal(content: bytes, passphrase: str) -> bytes:
    """What was sealed.

    Raises:
        TroubleError: the passphrase is another, or the content was changed.
    """
    return _run("unseal", content, passphrase)


def _run(verb: str, content: bytes, passphrase: str) -> bytes:
    # the package that encrypts is not there before set-up: it runs in the installed Python
    env = {**os.environ, VARIABLE: passphrase, "PYTHONPATH": str(paths.ROOT / "src")}
    command = [str(paths.PYTHON), "-m", "dolmetsch.command.backups.sealing", verb]
    done = run(command, input=content, env=env, capture_output=True, check=False)
    if done.returncode:
        raise TroubleError("The secrets in it do not open: the passphrase is another, or they were changed.")
    return done.stdout


def _work(verb: str, content: bytes, passphrase: bytes) -> bytes:
    from cryptography.hazmat.primitives.ciphers.aead import AESGCM
    from cryptography.hazmat.primitives.kdf.scrypt import Scrypt

    salt = os.urandom(_SALT) if verb == "seal" else content[:_SALT]
    key = Scrypt(salt=salt, length=32, n=2**15, r=8, p=1).derive(passphrase)
    if verb == "seal":
        nonce = os.urandom(_NONCE)
        return salt + nonce + AESGCM(key).encrypt(nonce, content, None)
    nonce, sealed = content[_SALT : _SALT + _NONCE], content[_SALT + _NONCE :]
    return AESGCM(key).decrypt(nonce, sealed, None)


if __name__ == "__main__":
    sys.stdout.buffer.write(_work(sys.argv[1], sys.stdin.buffer.read(), os.environb[VARIABLE.encode()]))
