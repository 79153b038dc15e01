"""Who may do what: one rule for every operation of the API, by its name. Without one it is not served."""

from dataclasses import dataclass
from typing import Final

from dolmetsch.server.kitchens.models import Role


@dataclass(frozen=True, slots=True, kw_only=True)
class Rule:
    """Who may do an operation.

    ``least``: the least role in its kitchen; None: no kitchen is asked for. ``is_open``: without signing in;
    a write then still needs the page's token, but for those ``without_token``.
    ``is_money``: it is about prices, and kept from those who are not shown any. ``words``: what the audit
    says was done; empty where nothing is recorded. ``is_own``: about the person themselves, and closed on the
    kitchen's tablet, as all that owners alone may do.
    """

    least: Role | None = None
    is_open: bool = False
    without_token: bool = False
    is_money: bool = False
    is_own: bool = False
    words: str = ""


def _all(
    names: str, *, least: Role | None, is_open: bool = False, is_money: bool = False, is_own: bool = False
) -> dict[str, Rule]:
    rule = Rule(least=least, is_open=is_open, is_money=is_money, is_own=is_own)
    return dict.fromkeys(names.split(), rule)


def _writes(least: Role, words: dict[str, str], *, is_money: bool = False) -> dict[str, Rule]:
    return {name: Rule(least=least, words=said, is_money=is_money) for name, said in words.items()}


RULES: Final[dict[str, Rule]] = {
    **_all("getOpenApi getSchema getSession signIn getTable", least=None, is_open=True),
    "handIn": Rule(is_open=True, without_token=True),
    **_all("showInvitation joinKitchen showPasswordLink setPasswordByLink", least=None, is_open=True),
    **_all("startKitchen getTablet sayWho", least=None, is_open=True),
    **_all("checkSession signOut", least=None),
    **_all("getOwnPage changeOwnName changePassword endSession", least=None, is_own=True),
    **_all("beginSecondFactor confirmSecondFactor endSecondFactor exportOwnData", least=None, is_own=True),
    # reading
    **_all("getToday getBatch findBatches getStripOfPiece getScales listenToScale", least=Role.READER),
    **_all("getPieces getPiecesTable getMap getLooks getPlan getCalendar getLanes", least=Role.READER),
    **_all("getCures getDiary getPhoto getBatchFires getFires getFire getAlarms", least=Role.READER),
    **_all("listenToCooker getFireFile getChamber getPractices getPractice find", least=Role.READER),
    **_all("getLarder getPack getBoard getMeals getLabelSheet getPackLabelSheet", least=Role.READER),
    **_all("getMealCalendar getSettings getUnits getHistory", least=Role.READER),
    # reading, of money
    **_all(
        "getFile getPayBack getVerdict getVerdicts getForecast getYields", least=Role.READER, is_money=True
    ),
    **_all(
        "getCalibration getPriceFile getPriceItem getPriceList getPrices", least=Role.READER, is_money=True
    ),
    **_all("getWays getCaseChoices checkCase tryChanges getOffcuts", least=Role.READER, is_money=True),
    **_all(
        "exportPiecesTable printOwnerPage getDishes getDish getDishesFile", least=Role.READER, is_money=True
    ),
    **_all("getCupboard getLarderFile getThickness getMeal getUnusualBook", least=Role.READER, is_money=True),
    **_all("getYieldBook getMoneyBook getPriceBook getForecastKinds", least=Role.READER, is_money=True),
    **_all("getTrials getTrial exportList getArchiveFacts", least=Role.READER, is_money=True),
    # what a record would come to; nothing is written
    **_all("previewEntry readOnScale previewPacks", least=Role.HELPER),
    **_all("previewBatch previewWay previewPriceList previewPackImport", least=Role.COOK, is_money=True),
    **_all("previewDish previewMeal previewHistory readButchersTest", least=Role.COOK, is_money=True),
    **_all("askCureDesk getCureDesk previewLog", least=Role.COOK),
    # weighing and ticking off
    **_writes(
        Role.HELPER,
        {
            "recordEntry": "recorded an entry",
            "recordNews": "ticked a task",
            "recordNewsAsBefore": "ticked a task",
            "recordJobNews": "ticked a job of a plan",
            "writeNote": "wrote a note",
            "keepPhoto": "added a photo",
            "takeFromPack": "took from a pack",
            "movePack": "moved a pack",
            "weighPack": "weighed a pack",
            "countShelves": "counted the shelves",
            "recordFireEvent": "recorded at the fire",
            "noteOfHook": "noted a hanging piece",
            "commandScale": "",
            "layOnScale": "",
            "printLabels": "",
            "beginPractice": "began a practice fire",
            "doInPractice": "acted in a practice fire",
        },
    ),
    # a cook's work
    **_writes(
        Role.COOK,
        {
            "setOwner": "noted whose pieces are",
            "learnFacts": "noted facts of a piece",
            "lookOver": "looked over a lot",
            "saveStore": "saved a fridge, smoker or chamber",
            "planTask": "planned a task",
            "saveRecipe": "saved a recipe",
            "makeMix": "made a cure mix",
            "putIn": "put pieces in the cure",
            "takeCureBack": "took back a cure",
            "beginFire": "lit a fire",
            "takeInLog": "added a log of a fire",
            "saveProgram": "saved a program",
            "commandCooker": "",
            "hangPiece": "hung a piece",
            "closePacks": "packed slices",
            "cancelPack": "canceled a pack",
            "cancelTaking": "canceled what was taken from a pack",
            "servePlates": "served plates",
            "cancelPlates": "canceled plates",
            "openTasting": "opened a tasting",
        },
    ),
    **_writes(
        Role.COOK,
        {
            "startBatch": "started a batch",
            "importDocument": "imported a batch",
            "chooseWay": "chose a method",
            "notePrice": "noted a price",
            "joinSeller": "joined two sellers' names",
            "noteFrying": "noted a frying test",
            "uploadPriceList": "uploaded a price list",
            "writePriceList": "imported prices",
            "saveWay": "saved a method",
            "takeOffer": "bought an offer",
            "importPacks": "imported packs",
            "saveDish": "saved a dish",
            "importDishes": "imported dishes",
            "lookAtCost": "looked over a dish's cost",
            "setAims": "set what dishes are to cost",
            "noteStock": "noted what the cupboard holds",
            "saveMeal": "saved a plan",
            "putMealOnList": "put a plan on the list",
            "nameMealBatch": "named a plan's batch",
            "buyTool": "noted a tool",
            "cancelTool": "canceled a tool",
            "beginTrial": "began a trial",
            "uploadHistory": "uploaded past batches",
            "writeHistory": "imported past batches",
        },
        is_money=True,
    ),
    # what only owners say and see
    **_all("exportEverything getPeople getAudit exportAudit exportPerson getDemo", least=Role.OWNER),
    **_writes(
        Role.OWNER,
        {
            "changeSettings": "changed the settings",
            "changeUnits": "changed units, currency or clock",
            "setFigure": "changed a limit or a spoon's weight",
            "fillKitchen": "filled the kitchen from a ZIP",
            "invite": "invited someone",
            "withdrawInvitation": "withdrew an invitation",
            "changeRole": "changed a role",
            "removeMember": "removed someone from the kitchen",
            "linkForPassword": "made a link for a new password",
            "removeName": "removed a person's name",
            "makeTablet": "made a device the kitchen's tablet",
        },
    ),
    "putDemoAway": Rule(least=Role.OWNER, words="put the demo away or brought it back"),
    "leaveKitchen": Rule(least=Role.READER, is_own=True, words="left the kitchen"),
    "setTabletCode": Rule(least=Role.READER, is_own=True, words="set a tablet code"),
}
