"""A certificate of one's own, so that phones keep the application: an authority made here once, and a
certificate of the address signed by it. Runs in the installed Python, which has the package for it."""

import ipaddress
import os
import sys
from datetime import UTC, datetime, timedelta
from pathlib import Path
from subprocess import run
from typing import Any, Final

from dolmetsch.command import paths
from dolmetsch.command.telling import TroubleError

FOLDER: Final = paths.PRIVATE / "certificate"
#: What phones are to trust, once; what the server shows; the key of that.
AUTHORITY: Final = FOLDER / "authority.crt"
CERTIFICATE: Final = FOLDER / "server.crt"
KEY: Final = FOLDER / "server.key"
#: As long as browsers take a certificate, at most; renewed at each start.
LIVES: Final = timedelta(days=397)
AUTHORITY_LIVES: Final = timedelta(days=3650)


def make_certificate(host: str) -> None:
    """Make the certificate for ``host`` and this machine, by an authority that is made at the first time.

    Raises:
        TroubleError: it could not be made.
    """
    env = {**os.environ, "PYTHONPATH": str(paths.ROOT / "src")}
    command = [str(paths.PYTHON), "-m", "dolmetsch.command.certificate", host]
    done = run(command, env=env, capture_output=True, text=True, check=False)
    if done.returncode:
        raise TroubleError(f"No certificate could be made: {done.stderr.strip().splitlines()[-1:]}")


def _make(host: str) -> None:
    from cryptography.hazmat.primitives.asymmetric import ec

    FOLDER.mkdir(parents=True, exist_ok=True, mode=0o700)
    signing, issuer = _load_authority()
    key = ec.generate_private_key(ec.SECP256R1())
    _write_key(KEY, key)
    _write(CERTIFICATE, _sign(host, key, signing, issuer))


def _load_authority() -> Any:
    """The authority's key and name; made at the first time."""
    from cryptography import x509
    from cryptography.hazmat.primitives import hashes, serialization
    from cryptography.hazmat.primitives.asymmetric import ec

    kept = FOLDER / "authority.key"
    if kept.is_file() and AUTHORITY.is_file():
        loaded = serialization.load_pem_private_key(kept.read_bytes(), None)
        return loaded, x509.load_pem_x509_certificate(AUTHORITY.read_bytes()).subject
    signing, now = ec.generate_private_key(ec.SECP256R1()), datetime.now(UTC)
    issuer = _named("Dolmetsch, this kitchen's own authority")
    root = (
        x509.CertificateBuilder()
        .subject_name(issuer)
        .issuer_name(issuer)
        .public_key(signing.public_key())
        .serial_number(x509.random_serial_number())
        .not_valid_before(now - timedelta(days=1))
        .not_valid_after(now + AUTHORITY_LIVES)
        .add_extension(x509.BasicConstraints(ca=True, path_length=0), critical=True)
        .sign(signing, hashes.SHA256())
    )
    _write_key(kept, signing)
    _write(AUTHORITY, root)
    return signing, issuer


def _sign(host: str, key: Any, signing: Any, issuer: Any) -> Any:
    """A certificate for ``host`` and for this machine itself."""
    from cryptography import x509
    from cryptography.hazmat.primitives import hashes
    from cryptography.x509.oid import ExtendedKeyUsageOID

    now = datetime.now(UTC)
    names: list[x509.GeneralName] = [x509.DNSName("localhost")]
    addresses = {"127.0.0.1"}
    try:
        addresses.add(str(ipaddress.ip_address(host)))
    except ValueError:
        names.append(x509.DNSName(host))
    names += [x509.IPAddress(ipaddress.ip_address(one)) for one in sorted(addresses)]
    return (
        x509.CertificateBuilder()
        .subject_name(_named(host))
        .issuer_name(issuer)
        .public_key(key.public_key())
        .serial_number(x509.random_serial_number())
        .not_valid_before(now - timedelta(days=1))
        .not_valid_after(now + LIVES)
        .add_extension(x509.SubjectAlternativeName(names), critical=False)
        .add_extension(x509.BasicConstraints(ca=False, path_length=None), critical=True)
        .add_extension(x509.ExtendedKeyUsage([ExtendedKeyUsageOID.SERVER_AUTH]), critical=False)
        .sign(signing, hashes.SHA256())
    )


def _named(words: str) -> Any:
    from cryptography import x509
    from cryptography.x509.oid import NameOID

    return x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, words)])


def _write(path: Path, certificate: Any) -> None:
    from cryptography.hazmat.primitives.serialization import Encoding

    _keep(path, certificate.public_bytes(Encoding.PEM))


def _write_key(path: Path, key: Any) -> None:
    from cryptography.hazmat.primitives import serialization

    form = serialization.PrivateFormat.PKCS8
    _keep(path, key.private_bytes(serialization.Encoding.PEM, form, serialization.NoEncryption()))


def _keep(path: Path, content: bytes) -> None:
    path.touch(mode=0o600)
    path.write_bytes(content)


if __name__ == "__main__":
    _make(sys.argv[1])
