"""Quantities and words as typed in a request ("4 lb 6 oz"), and the shape of a body."""

from typing import Annotated, Any

from pydantic import Base64Bytes, BaseModel, BeforeValidator, ConfigDict, Field, StringConstraints

from dolmetsch.server.quantities.lengths import (
    CODE_LENGTH,
    KIND_LENGTH,
    MARK_LENGTH,
    MOST_PIECES,
    NAME_LENGTH,
    REASON_LENGTH,
    SOURCE_LENGTH,
    TYPED_LENGTH,
    WORD_LENGTH,
)
from dolmetsch.server.quantities.schemas import MONEY
from dolmetsch.server.quantities.visible import make_visible

#: No control characters: a line is a line.
PRINTABLE = r"^[^\x00-\x1f\x7f]*$"


def _visible(value: Any) -> Any:
    return make_visible(value) if isinstance(value, str) else value


Visible = BeforeValidator(_visible)


def _line(longest: int) -> StringConstraints:
    return StringConstraints(strip_whitespace=True, max_length=longest, pattern=PRINTABLE)


Typed = Annotated[str, _line(TYPED_LENGTH), Visible]
#: A price or a sum, as typed: kept from who is shown no money.
TypedMoney = Annotated[str, _line(TYPED_LENGTH), Visible, MONEY]
Word = Annotated[str, _line(WORD_LENGTH), Visible]
Kind = Annotated[str, _line(KIND_LENGTH), Visible]
ByName = Annotated[str, _line(WORD_LENGTH), Visible]
Mark = Annotated[str, _line(MARK_LENGTH), Visible]
Marks = Annotated[list[Mark], Field(max_length=MOST_PIECES)]
Name = Annotated[str, _line(NAME_LENGTH), Visible]
Source = Annotated[str, _line(SOURCE_LENGTH), Visible]
Reason = Annotated[str, _line(REASON_LENGTH), Visible]
Code = Annotated[str, _line(CODE_LENGTH), Visible]


class Body(BaseModel):
    """A request body: unknown fields are refused, so that a slip of the pen is not lost."""

    model_config = ConfigDict(extra="forbid")


class FileIn(Body):
    """A file: its name, and what is in it in base 64."""

    name: Name
    content: Annotated[Base64Bytes, Field(max_length=3_000_000)]
