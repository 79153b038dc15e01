"""Quantities and words as typed in a request ("4 lb 6 oz"), and the shape of a body."""

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field, StringConstraints

#: No control characters: a line is a line.
PRINTABLE = r"^[^\x00-\x1f\x7f]*$"


def _line(longest: int) -> StringConstraints:
    return StringConstraints(strip_whitespace=True, max_length=longest, pattern=PRINTABLE)


Typed = Annotated[str, _line(40)]
Word = Annotated[str, _line(40)]
Kind = Annotated[str, _line(60)]
ByName = Annotated[str, _line(40)]
Mark = Annotated[str, _line(60)]
Marks = Annotated[list[Mark], Field(max_length=60)]
Name = Annotated[str, _line(80)]
Reason = Annotated[str, _line(200)]
Code = Annotated[str, _line(12)]


class Body(BaseModel):
    """A request body: unknown fields are refused, so that a slip of the pen is not lost."""

    model_config = ConfigDict(extra="forbid")
