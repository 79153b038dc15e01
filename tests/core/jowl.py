"""The jowl batch: a whole chain whose every printed figure is known."""

from fractions import Fraction as F

from dolmetsch.core.batch import (
    AS_MAIN,
    Batch,
    ByProduct,
    Extra,
    Lot,
    Main,
    Policy,
    Portion,
    ShopPack,
    Split,
    Step,
    Used,
    Weigh,
)
from dolmetsch.core.quantity import read_count, read_price, read_weight


def main(mark, weight, slices=None):
    return Main(id=mark, grams=read_weight(weight), slices=slices)


def off(mark, weight, worth):
    return ByProduct(
        id=mark, grams=read_weight(weight), worth=AS_MAIN if worth == "as_main" else read_price(worth)
    )


def used(what, group, amount, price, pieces=()):
    return Used(what=what, group=group, amount=amount, price=read_price(price), pieces=pieces)


def weigh(kind, minutes=0, lines=(), **weights):
    grams = {mark: read_weight(weight) for mark, weight in weights.items()}
    return Step(kind=kind, action=Weigh(grams=grams), minutes=F(minutes), used=lines)


def split(kind, piece, minutes, *into):
    return Step(kind=kind, action=Split(piece=piece, into=into), minutes=F(minutes))


JOWL = Batch(
    policy=Policy(labour_rate=F(18)),
    lots=(
        Lot(
            id="box",
            cut="jowl, skin on",
            grams=read_weight("24 lb"),
            paid=F("68.40"),
            extras=(Extra(what="harbour cart", cost=F(2)),),
        ),
    ),
    steps=(
        split(
            "trim",
            "box",
            28,
            main("A", "7.1 lb"),
            main("B", "6.9 lb"),
            main("C", "6 lb 12 oz"),
            off("skin", "1.05 lb", "0/lb"),
            off("lean", "1.3 lb", "2.40/lb"),
            off("square", "0.6 lb", "as_main"),
        ),
        weigh(
            "cure",
            22,
            (
                used("coarse salt", "cure", F(228), "1.20/kg"),
                used("curing salt no. 1", "cure", F("23.5"), "5.00 for 8 oz"),
                used("juniper", "cure", F(9), "31.00/kg", ("C",)),
            ),
            A="6.8 lb",
            B="6.6 lb",
            C="6.45 lb",
        ),
        weigh(
            "smoke",
            40,
            (used("cherry pellets", "fuel", read_weight("6 lb"), "19.50 for 20 lb"),),
            A="5.9 lb",
            B="5.72 lb",
            C="5.6 lb",
        ),
        weigh("chill", A="5.81 lb", B="5.64 lb", C="5.52 lb"),
        split("slice", "A", 14, main("A1", "5.15 lb", 88), off("A2", "0.6 lb", "3.00/lb")),
        split("slice", "B", 13, main("B1", "4.95 lb", 85), off("B2", "0.63 lb", "3.00/lb")),
        split("slice", "C", 13, main("C1", "4.8 lb", 83), off("C2", "0.66 lb", "3.00/lb")),
        weigh(
            "pack",
            20,
            (used("bags", "packaging", read_count("15"), "18.00 for 50 each"),),
            A1="5.15 lb",
            B1="4.95 lb",
            C1="4.8 lb",
        ),
    ),
    portion=Portion(slices=F(3)),
    shop=(
        ShopPack(name="good", paid=F("5.40"), grams=read_weight("12 oz"), slices=11),
        ShopPack(name="best", paid=F("8.65"), grams=read_weight("1 lb")),
    ),
)
