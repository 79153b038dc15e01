"""The answer of ``cook``, as ``dolmetsch-cook-answer/1``."""

from collections.abc import Mapping
from fractions import Fraction
from typing import Final

from dolmetsch.core.heat.cooling import Leg
from dolmetsch.core.heat.follow_cook import FollowedCook
from dolmetsch.core.heat.home_rule import HomeRuleMet
from dolmetsch.core.heat.inside import InsideNow, Peak
from dolmetsch.core.heat.lethality import Lethality
from dolmetsch.core.heat.troubles import Trouble
from dolmetsch.core.numbers.exact import fixed, round_to
from dolmetsch.core.numbers.moment import print_moment
from dolmetsch.core.numbers.span import TimeSpan
from dolmetsch.core.numbers.temperature import TemperatureUnit, difference_from_fahrenheit, from_fahrenheit

FORMAT: Final = "dolmetsch-cook-answer/1"
TEMPERATURE_PLACES, LETHALITY_PLACES = 1, 6


def write_cook(followed: FollowedCook) -> dict[str, object]:
    """The answer, ready for JSON."""
    unit = followed.log.unit
    cooling = followed.cooling
    return {
        "format": FORMAT,
        "inside": _write_inside(followed.inside, unit),
        "lethality": _write_lethality(followed.lethality),
        "home_rule": _write_home_rule(followed.home_rule),
        "cooling": {"plain": _write_legs(cooling.plain), "cured": _write_legs(cooling.cured)},
        "ready": None if followed.ready is None else write_span(followed.ready.span),
        "ready_why": None if followed.ready is None else followed.ready.why,
        "peak": _write_peak(followed.peak, unit),
        "troubles": [_write_trouble(one) for one in followed.troubles],
        "warnings": _list_warnings(followed),
    }


def _write_inside(inside: InsideNow | None, unit: TemperatureUnit) -> dict[str, object]:
    if inside is None:
        return {"now": None, "probe": None, "rate_per_hour": None, "unread": []}
    rate = inside.rate_per_hour
    return {
        "now": _temperature(inside.fahrenheit, unit),
        "probe": inside.probe,
        "rate_per_hour": None
        if rate is None
        else fixed(difference_from_fahrenheit(rate, unit), TEMPERATURE_PLACES),
        "unread": list(inside.unread),
    }


def _write_lethality(lethality: Lethality | None) -> dict[str, object] | None:
    if lethality is None:
        return None
    return {
        "log6_5": fixed(lethality.log6_5, LETHALITY_PLACES),
        "log7": fixed(lethality.log7, LETHALITY_PLACES),
        "met_at_6_5": moment_or_none(lethality.met_at_6_5),
        "met_at_7": moment_or_none(lethality.met_at_7),
    }


def _write_home_rule(rule: HomeRuleMet | None) -> dict[str, object] | None:
    return None if rule is None else {"needs": rule.needs, "met_at": moment_or_none(rule.met_at)}


def _write_legs(legs: Mapping[str, Leg | None] | None) -> dict[str, object] | None:
    if legs is None:
        return None
    return {
        name: None
        if leg is None
        else {
            "state": leg.state,
            "seconds": round_to(leg.seconds, 0),
            "from": moment_or_none(leg.start),
            "to": moment_or_none(leg.end),
        }
        for name, leg in legs.items()
    }


def write_span(span: TimeSpan | None) -> dict[str, object] | None:
    """When it is ready, by its three times; None where nothing can be said."""
    if span is None:
        return None
    return {
        "low": print_moment(span.low),
        "likely": print_moment(span.likely),
        "high": print_moment(span.high),
    }


def _write_peak(peak: Peak | None, unit: TemperatureUnit) -> dict[str, object] | None:
    if peak is None:
        return None
    return {"temp": _temperature(peak.fahrenheit, unit), "at": print_moment(peak.at)}


def _write_trouble(trouble: Trouble) -> dict[str, object]:
    return {
        "code": trouble.code,
        "from": print_moment(trouble.start),
        "to": print_moment(trouble.end),
        "probe": trouble.probe,
        "said": trouble.text,
    }


def _list_warnings(followed: FollowedCook) -> list[str]:
    found = []
    if followed.inside is None:
        found.append("There is no inside temperature in this log.")
    if followed.lethality is None:
        found.append("Poultry has lethality tables of its own, which are not kept here; use the home rule.")
    return found


def moment_or_none(at: Fraction | None) -> str | None:
    """A time printed; None where there is none."""
    return None if at is None else print_moment(at)


def _temperature(fahrenheit: Fraction, unit: TemperatureUnit) -> str:
    return fixed(from_fahrenheit(fahrenheit, unit), TEMPERATURE_PLACES)
