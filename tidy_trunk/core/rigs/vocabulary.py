"""Everyday words for what a job needs, and what each means. All common practice. [PRACTICE]"""

import re
from typing import Final

from tidy_trunk.core.rigs.brief import Delivery, Microphone, SourcePlacing, Subject

NUMBERS: Final = {
    **dict.fromkeys(("a", "an", "one", "single"), 1),
    **dict.fromkeys(("two", "both", "pair of", "couple of"), 2),
    **dict(zip(("three", "four", "five", "six", "seven", "eight", "nine", "ten"), range(3, 11), strict=True)),
    "several": 3,
    "dozen": 12,
    "twenty": 20,
    "thirty": 30,
    "forty": 40,
    "fifty": 50,
    "hundred": 100,
}
"""Words for numbers. [PRACTICE]"""

COUNT: Final = rf"(?:\b(?P<count>\d+|{'|'.join(sorted(NUMBERS, key=len, reverse=True))})\s+(?:x\s+)?(?:of\s+)?)?"
"""A number before what is counted. [PRACTICE]"""

_RADIO: Final = r"\s+(?:on|by|with|over|via)?\s*(?:a\s+)?(?:radio|wireless)s?\b"
_MIC: Final = r"(?:\s+(?:microphone|mic))?s?\b"

MICROPHONES: Final[tuple[tuple[str, Microphone], ...]] = (
    (r"(?:clip-?\s?on|lav(?:alier)?)\s+(?:radio\s+|wireless\s+)?(?:radio|wireless|set|kit|transmitter)s?\b", Microphone("clip-on-transmitter", True)),
    (rf"\b(?:lavalier|lav|lapel){_MIC}{_RADIO}", Microphone("lavalier", True)),
    (rf"\b(?:radio|wireless)\s+(?:lavalier|lav|lapel|microphone|mic|pack|set){_MIC}", Microphone("lavalier", True)),
    (rf"\b(?:dynamic\s+)?(?:handheld|hand-held|hand|dynamic|reporter){_MIC}{_RADIO}", Microphone("dynamic-handheld", True)),
    (rf"\b(?:boom|shotgun)(?:\s+shotgun)?{_MIC}{_RADIO}", Microphone("boom-shotgun", True)),
    (rf"\b(?:lavalier|lav|lapel){_MIC}", Microphone("lavalier")),
    (r"\b(?:radios|wireless)\b", Microphone("lavalier", True)),
    (rf"\b(?:phantom(?:-|\s)powered\s+)?(?:boom|shotgun)(?:\s+shotgun)?{_MIC}", Microphone("boom-shotgun")),
    (rf"\b(?:on-?\s?camera|top){_MIC}", Microphone("on-camera-microphone")),
    (rf"\bbattery\s+condenser{_MIC}", Microphone("battery-condenser")),
    (rf"\b(?:(?:pencil|small)\s+)?condenser{_MIC}", Microphone("pencil-condenser")),
    (r"\busb\s+(?:microphone|mic)s?\b", Microphone("usb-microphone")),
    (rf"\b(?:dynamic\s+)?(?:handheld|hand-held|dynamic|reporter|hand){_MIC}", Microphone("dynamic-handheld")),
)  # fmt: skip
"""By pattern, the microphone that is meant; the first that fits counts. [PRACTICE]"""

ANY_MICROPHONES: Final = rf"\b(?:\d+|{'|'.join(sorted(NUMBERS, key=len, reverse=True))})\s+(?:microphone|mic)s?\b"
"""Microphones of which only the number is said: they may be worn, held or on a boom. [PRACTICE]"""

WORN: Final = frozenset({"lavalier", "clip-on-transmitter", "headset-microphone", "dynamic-handheld"})
"""Microphones of which everybody has one. [PRACTICE]"""

ON_THE_BODY: Final = WORN - {"dynamic-handheld"}
"""Those of them that are worn, so that a recorder can be worn with them. [PRACTICE]"""

STEREO_PAIR: Final = r"\bstereo\s+pair\b"
"""Two microphones in a few words. [PRACTICE]"""

RECORDERS: Final[tuple[tuple[str, str], ...]] = (
    (r"\b(?:body-?\s?worn|float|body)\s+(?:float\s+)?recorders?\b", "float-recorder"),
    (r"\b(?:bag|mixer|field|timecode)[-\s]+recorders?\b|\brecorders?\s+with\s+timecode\b|\bsound\s+bag\b", "bag-recorder"),
    (r"\b(?:pocket|small)\s+recorders?\b", "plug-in-recorder"),
    (r"\b(?:hand-?held|two-?\s?input|hand)\s+recorders?\b", "handheld-recorder"),
    (r"\b(?:computer|laptop|notebook)s?\b", "computer"),
    (r"\brecorders?\b", ""),
)  # fmt: skip
"""By pattern, the class of recorder; "" for one of which nothing is said. [PRACTICE]"""

NO_RECORDER: Final = r"\b(?:no|without(?:\s+an?)?)\s+(?:sound\s+)?recorder\b"
"""That there is none. [PRACTICE]"""

DEVICES: Final[tuple[tuple[str, str], ...]] = (
    (r"\b(?:timecode|sync)\s+(?:box(?:es)?|generators?)\b", "timecode-generator"),
    (r"\b(?:live\s+|vision\s+|video\s+)?switchers?\b", "live-switcher"),
    (r"\b(?:preamp|pre-amp)(?:\s+box(?:es)?)?s?\b", "preamp-box"),
    (r"\b(?:field\s+)mixers?\b", "field-mixer"),
    (r"\b(?:desk\s+mixer|sound\s+desk|desk|console)s?\b", "desk-mixer"),
    (r"\bmixers?\b", "field-mixer"),
    (r"\b(?:usb\s+|audio\s+)+interfaces?\b", "usb-interface"),
    (r"\b(?:audio\s+)?delay\s+(?:unit|box)(?:es|s)?\b", "audio-delay"),
)  # fmt: skip
"""By pattern, other devices at hand. [PRACTICE]"""

MIC_SOCKET: Final = r"(?:mic(?:rophone)?\s*(?:socket|input|jack)|3\.5(?:\s*mm)?\s*(?:socket|input|mic(?:rophone)?)?)"
"""The small socket of a camera. [PRACTICE]"""

SOCKETS: Final[tuple[tuple[str, str], ...]] = (
    (r"(?:aes3?|aes/ebu)(?:\s+(?:input|in|socket))?s?", "cinema-xlr5"),
    (r"xlr-?\s?5|cinema|film|digital\s+cinema", "cinema-xlr5"),
    (r"timecode(?!\s+(?:box|gen))(?:\s+(?:socket|input|in))?", "mirrorless-timecode"),
    (r"(?:mic\s*/\s*line|line)(?:\s+(?:socket|input|switch|in))?", "mirrorless-line"),
    (r"(?:two\s+)?xlrs?(?:\s+(?:input|socket|in))?s?|shoulder|video", "shoulder-camcorder"),
    (r"action|sports", "action-camera"),
    (MIC_SOCKET, "mirrorless-mic"),
    (r"mirrorless|dslr|photo|stills", "mirrorless-mic"),
)  # fmt: skip
"""By pattern, the camera that has such a socket, or is such a camera. [PRACTICE]"""

_KINDS: Final = "|".join(pattern for pattern, _ in SOCKETS)
CAMERA: Final = (
    rf"{COUNT}(?:(?P<before>{_KINDS})\s+)?(?<!on-)(?<!on )(?<!on-\s)(?P<what>cameras?|camcorders?|cams?)\b"
    rf"(?:[\s,]*(?:with|by|has|have|having|of\s+which\s+each\s+has|that\s+have|that\s+has)?\s*(?:only\s+)?(?:an?\s+|the\s+|its\s+)?(?P<after>{_KINDS})\b)?(?:\s+only)?"
)
"""Cameras with their number, and a socket before or after. [PRACTICE]"""

PHONE: Final = rf"{COUNT}\b(?:smart)?phones?\b"
"""A phone that films. [PRACTICE]"""

NO_CAMERA: Final = r"\b(?:no|without(?:\s+an?)?)\s+(?:camera|picture)s?\b|\bsound\s+only\b"
"""That no picture is taken. [PRACTICE]"""

PEOPLE: Final = (
    rf"{COUNT}(?:\b(?:people|persons?|speakers?|presenters?|guests?|actors?|voices?|interviewees?|heads?)\b)"
    r"(?:\s+(?:talking|speaking|who\s+talk))?"
)
"""How many are heard. [PRACTICE]"""

SUBJECTS: Final[tuple[tuple[str, Subject, int], ...]] = (
    (r"\b(?:concert|band|choir|orchestra|music|gig|recital)s?\b", Subject.MUSIC, 1),
    (r"\b(?:effects?|atmos(?:phere)?|ambience|sounds\s+of|machines?|noises?)\b", Subject.EFFECTS, 1),
    (r"\b(?:group|panel|round\s+table|discussion|meeting)\b", Subject.TALK, 4),
    (r"\b(?:podcast|conversation|dialogue|duologue)\b", Subject.TALK, 2),
    (r"\b(?:interviews?|talk(?:s|ing)?|speech(?:es)?|lecture|piece\s+to\s+camera|talking\s+head|speaking)\b", Subject.TALK, 1),
)  # fmt: skip
"""By pattern, what is recorded, and how many are heard where nobody says. [PRACTICE]"""

ONCE: Final = (
    r"\b(?:happens\s+(?:only\s+)?once|only\s+once|once|one-?\s?off|cannot\s+be\s+repeated|can't\s+be\s+repeated|no\s+retakes?"
    r"|ceremony|wedding|speech(?:es)?|concert|show|event|gig)\b"
)
"""That it cannot be repeated. [PRACTICE]"""

AGAIN: Final = r"\b(?:can\s+be\s+repeated|more\s+than\s+once|retakes?|repeatable|rehearsed)\b"
"""That it can. [PRACTICE]"""

ALONE: Final = r"\b(?:alone|by\s+myself|solo|on\s+my\s+own|one\s+person\s+does\s+(?:it\s+)?all|single-?handed)\b"
"""That one person does all of it. [PRACTICE]"""

CREW: Final = r"\b(?:with\s+)?(?:a\s+)?(?:sound\s+)?(?:crew|team|recordist|operators?|assistants?)\b"
"""That somebody looks after the sound alone. [PRACTICE]"""

DELIVERIES: Final[tuple[tuple[str, Delivery], ...]] = (
    (r"\b(?:live|stream(?:ed|ing)?)\b", Delivery.LIVE),
    (r"\b(?:delivered\s+|handed\s+over\s+)?(?:tonight|same[\s-]day|today|at\s+once|straight\s+away)\b", Delivery.TONIGHT),
    (r"\b(?:edited\s+)?later\b|\bedited\b", Delivery.LATER),
)  # fmt: skip
"""By pattern, when the sound must be with its picture. [PRACTICE]"""

PLACINGS: Final[tuple[tuple[str, SourcePlacing], ...]] = (
    (r"\b(?:walk(?:s|ing)?|moving|move(?:s)?|run\s+and\s+gun)\b", SourcePlacing.WALKING),
    (r"\b(?:at\s+a\s+distance|far\s+away|from\s+afar|distant)\b", SourcePlacing.FAR),
    (r"\b(?:sit(?:s|ting)?|seated|standing|stands?)\b", SourcePlacing.SITTING),
)  # fmt: skip
"""By pattern, where those are who are heard. [PRACTICE]"""

SEPARATE: Final = r"\b(?:separate|isolated|own)\s+tracks?(?:\s+each)?\b|\bisos\b|\ba\s+track\s+each\b"
"""That each microphone wants its own track. [PRACTICE]"""

SMALL: Final = r"\b(?:small(?:\s+and\s+quick)?|quick|light(?:weight)?|little\s+to\s+carry)\b"
"""That little shall be carried and set up. [PRACTICE]"""

MIX_IN_CAMERA: Final = r"\b(?:the\s+)?mix\s+in\s+the\s+camera\s+too\b"
"""That what a recorder or mixer holds shall be in the camera too: a sentence of its own. [PRACTICE]"""

INTO_CAMERA: Final = r"\b(?:recorder|mixer|mix|preamp)(?:\s+mix)?\s+(?:goes\s+|fed\s+)?into\s+(?:\w+\s+){0,2}?(?=cameras?\b|cam\b|phone\b)"
"""The same, of a recorder and a camera that are named so. [PRACTICE]"""

NO_TIMECODE: Final = r"\b(?:no|without(?:\s+any)?)\s+timecode\b"
"""That there is none. [PRACTICE]"""

AES3: Final = r"\baes(?:3|/ebu)?\b"
"""The digital link by its name. [AES3]"""

SPAN: Final = r"\b\d+(?:[.,]\d+)?\s*(?:hours?|h|minutes?|min|days?|m|metres?|meters?)\b"
"""A time or a length: nothing hangs on it here. [PRACTICE]"""

FILLERS: Final = frozenset(
    re.findall(
        r"\w+",
        "i we you he she they it its is are be am have has had own owns want need needs would like to record records recorded "
        "recording film films filming filmed shoot shoots shooting picture pictures on in into with by from for of and or the a an "
        "that this there which who what where how do does set use using used plus also each only just my our me one happens happen "
        "work works working sound audio person people go goes wrong can get gets then so as at via over radio cable cables wired wire "
        "microphone mic mics microphones socket input long hour hours three talking up any some all other same time when will "
        "each side sides late without timecode nothing else more usual whatever suits",
    )
)
"""Words that say nothing beside what was understood. [PRACTICE]"""
