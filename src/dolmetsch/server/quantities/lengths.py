"""How long a text may be: one figure for the API, the forms (by the API document) and the tables."""

from typing import Final

CODE_LENGTH: Final = 12
#: So many pieces one entry may name.
MOST_PIECES: Final = 200
#: A quantity as typed, like "4 lb 6 oz".
TYPED_LENGTH: Final = 40
WORD_LENGTH: Final = 40
COURSE_LENGTH: Final = 16
KIND_LENGTH: Final = 60
MARK_LENGTH: Final = 60
SOURCE_LENGTH: Final = 60
NAME_LENGTH: Final = 80
#: "12.00 for 100 each": a price and a size, as typed.
PRICE_LENGTH: Final = 2 * TYPED_LENGTH + 5
FILE_NAME_LENGTH: Final = 120
REASON_LENGTH: Final = 200
#: What a device someone is signed in on is called.
DEVICE_LENGTH: Final = 60
NOTE_LENGTH: Final = 2000
