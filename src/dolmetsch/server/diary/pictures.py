"""Photos as files: read as pictures or not at all, scaled, stripped, written beside the record store."""

import hashlib
import os
import re
import uuid
import warnings
from dataclasses import dataclass
from io import BytesIO
from pathlib import Path
from typing import Final, Literal

from django.conf import settings
from PIL import Image, ImageOps, UnidentifiedImageError

from dolmetsch.server.problems import DomainError

MAX_BYTES: Final = 15 * 1024 * 1024
#: More than any camera makes; a small file that unfolds to more is a bomb.
MAX_PIXELS: Final = 120_000_000
#: The longer side of a kept photo, and of its small one.
SIDES: Final = {"large": 2000, "small": 480}
FORMATS: Final = ("JPEG", "PNG", "WEBP")
Size = Literal["large", "small"]
SIZES: Final[tuple[Size, ...]] = ("large", "small")
_DIGEST: Final = re.compile(r"[0-9a-f]{64}")


@dataclass(frozen=True, slots=True, kw_only=True)
class Picture:
    """A picture as it is kept, in both sizes, as JPEG."""

    large: bytes
    small: bytes
    width: int
    height: int

    @property
    def digest(self) -> str:
        """The name of its files."""
        return hashlib.sha256(self.large).hexdigest()


def read_picture(content: bytes) -> Picture:
    """A picture from an uploaded file, whatever its name says it is.

    Drawn anew from its pixels, so that nothing but those is kept: no place, no camera, no trailing bytes.

    Raises:
        DomainError: too_much, no_photo.
    """
    if len(content) > MAX_BYTES:
        raise DomainError("too_much", 413, "Too large", "A photo may have 15 MB; nothing was written.")
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("error")
            with Image.open(BytesIO(content), formats=FORMATS) as opened:
                if opened.width * opened.height > MAX_PIXELS:
                    raise _no_photo("It unfolds to more than any camera takes.")
                upright = ImageOps.exif_transpose(opened)
                flat = _flatten(upright)
    except DomainError:
        raise
    except (UnidentifiedImageError, OSError, ValueError, SyntaxError, Warning, Image.DecompressionBombError):
        raise _no_photo("It cannot be read as JPEG, PNG or WebP.") from None
    large = _scale(flat, SIDES["large"])
    small = _scale(flat, SIDES["small"])
    return Picture(large=_write(large), small=_write(small), width=large.width, height=large.height)


def _no_photo(why: str) -> DomainError:
    return DomainError("no_photo", 422, "No photo", f"{why} Send a photo; nothing was written.")


def _flatten(picture: Image.Image) -> Image.Image:
    """On white, in plain colours."""
    if picture.mode in ("RGBA", "LA", "PA") or "transparency" in picture.info:
        above = picture.convert("RGBA")
        white = Image.new("RGBA", above.size, "white")
        return Image.alpha_composite(white, above).convert("RGB")
    return picture.convert("RGB")


def _scale(picture: Image.Image, side: int) -> Image.Image:
    scaled = picture.copy()
    scaled.thumbnail((side, side), Image.Resampling.LANCZOS)
    return scaled


def _write(picture: Image.Image) -> bytes:
    plain = Image.frombytes("RGB", picture.size, picture.tobytes())
    out = BytesIO()
    plain.save(out, "JPEG", quality=86, optimize=True)
    return out.getvalue()


def keep_files(picture: Picture) -> None:
    """Write both sizes; a picture that is there already is not written again."""
    put_file(picture.digest, "large", picture.large)
    put_file(picture.digest, "small", picture.small)


def put_file(digest: str, size: Size, content: bytes) -> None:
    """Write one size of a picture, where it is not there already.

    Raises:
        ValueError: ``digest`` is no SHA-256 in hexadecimal digits.
    """
    if not _DIGEST.fullmatch(digest):
        raise ValueError(f"“{digest}” names no picture")
    path = _path(digest, size)
    if path.is_file():
        return
    path.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
    # written whole under a name of its own first: a file that is there is a whole one, and on the disk
    fresh = path.with_suffix(f".{uuid.uuid4().hex}.new")
    with open(os.open(fresh, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600), "wb") as out:
        out.write(content)
        out.flush()
        os.fsync(out.fileno())
    fresh.replace(path)
    _flush(path.parent)


def _flush(folder: Path) -> None:
    """Write a folder's own entries to the disk: without it a renamed file may be lost with the power."""
    held = os.open(folder, os.O_RDONLY)
    try:
        os.fsync(held)
    finally:
        os.close(held)


def read_file(digest: str, size: Size) -> bytes | None:
    """A kept photo's bytes; None where the file is gone."""
    path = _path(digest, size)
    return path.read_bytes() if path.is_file() else None


def _path(digest: str, size: str) -> Path:
    return Path(settings.PHOTOS) / digest[:2] / f"{digest}.{size}.jpg"
