"""The strip drawn for paper: black and white, distinguished by hatching and by words."""

from html import escape
from typing import Final

from dolmetsch.server.batches.show.schemas import ColumnOut, ShopOut, StripOut

WIDTH, HEAD, CLIMB, RIBBON, FOOT = 720, 22, 120, 100, 74
#: Room at the right for the names of the shop's kinds, where there are any.
MARGIN: Final = 104
#: Letters that fit across a column, by its width.
LETTER: Final = 5.2


def draw_strip(strip: StripOut, shops: list[ShopOut], *, unit: str, sign: str) -> str:
    """An SVG of the strip: climb above beside the shop's kinds, ribbon below, what left it by name."""
    columns = strip.columns
    across = WIDTH - (MARGIN if shops else 0)
    wide = across / max(len(columns), 1)
    top = max([float(column.weight_in.kg) for column in columns] or [1]) or 1
    prices = [_price(column, unit) for column in columns]
    levels = [(shop.name, float(shop.unit_cost.of(unit))) for shop in shops]
    heights = [price for price in prices if price is not None] + [level for _, level in levels]
    dearest = max(heights or [1.0]) or 1.0
    parts = [
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {WIDTH} {HEAD + CLIMB + RIBBON + FOOT}" '
        f'width="100%" font-family="Archivo, sans-serif" font-size="10">',
        '<defs><pattern id="meat" width="4" height="4" patternUnits="userSpaceOnUse" '
        'patternTransform="rotate(45)"><rect width="4" height="4" fill="#fff"/>'
        '<line x1="0" y1="0" x2="0" y2="4" stroke="#000" stroke-width="1.1"/></pattern></defs>',
    ]
    last = 0.0
    for name, level in sorted(levels, key=lambda one: -one[1]):
        last = max(_height(level, dearest), last + 11)
        parts += _draw_level(f"{name} {sign}{level:.2f}", _height(level, dearest), last, across)
    for index, (column, price) in enumerate(zip(columns, prices, strict=True)):
        left = index * wide
        parts += _draw_head(column, left, wide)
        if price is not None:
            parts += _draw_price(price, dearest, left, wide, sign)
        parts += _draw_ribbon(column, top, left, wide)
        parts += _draw_peels(column, left, wide, unit)
    return "".join([*parts, "</svg>"])


def _price(column: ColumnOut, unit: str) -> float | None:
    return None if column.cost is None else float(column.cost.of(unit))


def _height(price: float, dearest: float) -> float:
    return HEAD + CLIMB - (CLIMB - 22) * price / dearest


def _text(x: float, y: float, words: str, **more: str) -> str:
    attributes = "".join(f' {name.replace("_", "-")}="{value}"' for name, value in more.items())
    return f'<text x="{x:.1f}" y="{y:.1f}"{attributes}>{escape(words)}</text>'


def _draw_head(column: ColumnOut, left: float, wide: float) -> list[str]:
    word = _fit(column.label or "Step", wide)
    line = f'<line x1="{left:.1f}" y1="0" x2="{left:.1f}" y2="{HEAD + CLIMB + RIBBON}" stroke="#999"/>'
    return [line, _text(left + 4, 12, word, font_weight="700")]


def _draw_price(price: float, dearest: float, left: float, wide: float, sign: str) -> list[str]:
    y = _height(price, dearest)
    ends = f'x1="{left:.1f}" y1="{y:.1f}" x2="{left + wide:.1f}" y2="{y:.1f}"'
    line = f'<line {ends} stroke="#000" stroke-width="2"/>'
    words = f"{sign}{price:.2f}"
    ground = f'<rect x="{left + 2:.1f}" y="{y - 14:.1f}" width="{len(words) * 7}" height="12" fill="#fff"/>'
    return [line, ground, _text(left + 4, y - 4, words, font_weight="700", font_size="11")]


def _draw_level(words: str, y: float, label: float, across: float) -> list[str]:
    """A shop's kind as a dashed line across all columns, named beside them."""
    line = f'<path d="M0 {y:.1f}H{across:.1f}L{across + 8:.1f} {label:.1f}" fill="none" stroke="#000" '
    return [
        f'{line}stroke-dasharray="5 4"/>',
        _text(across + 11, label + 3, _fit(words, MARGIN * 1.3), font_size="8.5"),
    ]


def _draw_ribbon(column: ColumnOut, top: float, left: float, wide: float) -> list[str]:
    middle = HEAD + CLIMB + RIBBON / 2
    before = float(column.weight_in.kg) / top * (RIBBON - 12) / 2
    after = float(column.weight_out.kg) / top * (RIBBON - 12) / 2
    turn = left + wide * 0.35
    points = [
        *((left, middle - before), (turn, middle - after), (left + wide, middle - after)),
        *((left + wide, middle + after), (turn, middle + after), (left, middle + before)),
    ]
    shape = " ".join(f"{x:.1f},{y:.1f}" for x, y in points)
    return [f'<polygon points="{shape}" fill="url(#meat)" stroke="#000"/>']


def _draw_peels(column: ColumnOut, left: float, wide: float, unit: str) -> list[str]:
    base = HEAD + CLIMB + RIBBON + 12
    lines = [_text(left + 4, base, column.weight_out.say(unit), font_weight="700")]
    for index, peel in enumerate(column.peels[:4], start=1):
        words = f"{'+' if peel.gain else '−'}{peel.weight.of(unit)} {peel.name}"
        lines.append(_text(left + 4, base + 13 * index, _fit(words, wide), font_size="8.5"))
    if len(column.peels) > 4:
        lines.append(_text(left + 4, base + 61, f"and {len(column.peels) - 4} more", font_size="8.5"))
    return lines


def _fit(words: str, wide: float) -> str:
    most = max(int((wide - 6) / LETTER), 3)
    return words if len(words) <= most else f"{words[: most - 1]}…"
