"""What a recorder writes into a file about a take: scene, number, tracks. Source: [IXML]"""

from dataclasses import dataclass
from typing import BinaryIO, Final
from xml.etree.ElementTree import Element, ParseError, SubElement, tostring

from defusedxml import ElementTree
from defusedxml.common import DefusedXmlException

from tidy_trunk.formats.riff import UNKNOWN_SIZE, chunks

LARGEST_BYTES: Final = 1_000_000
"""ASSUMED_ largest description that is read: a recorder's has some thousand bytes."""


@dataclass(frozen=True, slots=True, kw_only=True)
class TakeLabels:
    """scene, take, tape, note: as text; circled: as the recorder marked it; tracks: channel, from 1, and name.

    rate: of its timecode, as a fraction `25/1`, drop: whether labels are dropped; user_bits: its eight digits; "" where nothing
    is said.
    """

    scene: str = ""
    take: str = ""
    tape: str = ""
    note: str = ""
    circled: bool = False
    tracks: tuple[tuple[int, str], ...] = ()
    rate: str = ""
    drop: bool = False
    user_bits: str = ""


def read_labels(stream: BinaryIO) -> TakeLabels | None:
    """The `iXML` of a WAV or RF64; None where there is none that can be read. The stream is put back to its start.

    It comes from anywhere: entities and outside references are refused, its size is limited.
    """
    try:
        for name, _, size in chunks(stream):
            if name == b"iXML" and size != UNKNOWN_SIZE and size <= LARGEST_BYTES:
                return _parsed(stream.read(size))
        return None
    finally:
        stream.seek(0)


def _root(body: bytes) -> Element | None:
    try:
        found: Element = ElementTree.fromstring(body.rstrip(b"\0 \r\n\t"))
        return found
    except (ParseError, DefusedXmlException, ValueError, LookupError):
        return None


def _parsed(body: bytes) -> TakeLabels | None:
    root = _root(body)
    if root is None:
        return None
    tracks = []
    for track in root.iterfind("TRACK_LIST/TRACK"):
        channel = _text(track, "CHANNEL_INDEX") or _text(track, "INTERLEAVE_INDEX")
        if channel.isdigit():
            tracks.append((int(channel), _text(track, "NAME")))
    return TakeLabels(
        scene=_text(root, "SCENE"),
        take=_text(root, "TAKE"),
        tape=_text(root, "TAPE"),
        note=_text(root, "NOTE"),
        circled=_text(root, "CIRCLED").upper() == "TRUE",
        tracks=tuple(tracks),
        rate=_text(root, "SPEED/TIMECODE_RATE"),
        drop=_text(root, "SPEED/TIMECODE_FLAG").upper() == "DF",
        user_bits=_text(root, "UBITS").upper().removeprefix("0X"),
    )


def _text(element: Element, path: str) -> str:
    found = element.findtext(path)
    return " ".join((found or "").split())[:200]


def relabelled(body: bytes | None, labels: TakeLabels, original: str) -> bytes:
    """A description with the labels of a take in it, and the name that its file had; all else that it said stays.

    body: as the file has it; None, or one that cannot be read: a new one is begun. Nothing is said of a clock: that stays too.
    """
    root = _root(body) if body is not None else None
    if root is None or root.tag != "BWFXML":
        root = Element("BWFXML")
        SubElement(root, "IXML_VERSION").text = "2.10"
    add_labels(root, labels)
    history = _child(root, "HISTORY")
    if not history.findtext("ORIGINAL_FILENAME"):
        _child(history, "ORIGINAL_FILENAME").text = original
    document: bytes = tostring(root, encoding="UTF-8", xml_declaration=True)
    return document


def add_labels(root: Element, labels: TakeLabels) -> None:
    """What a take is called, into a description; each field takes the place of what stood there."""
    values = {
        "SCENE": labels.scene,
        "TAKE": labels.take,
        "TAPE": labels.tape or root.findtext("TAPE") or "",
        "CIRCLED": "TRUE" if labels.circled else "FALSE",
        "NOTE": labels.note,
    }
    for name, value in values.items():
        _child(root, name).text = value
    if labels.tracks:
        tracks = _child(root, "TRACK_LIST")
        tracks.clear()
        SubElement(tracks, "TRACK_COUNT").text = str(len(labels.tracks))
        for place, (channel, name) in enumerate(labels.tracks, start=1):
            track = SubElement(tracks, "TRACK")
            SubElement(track, "CHANNEL_INDEX").text = str(channel)
            SubElement(track, "INTERLEAVE_INDEX").text = str(place)
            SubElement(track, "NAME").text = name


def _child(element: Element, name: str) -> Element:
    found = element.find(name)
    return SubElement(element, name) if found is None else found
