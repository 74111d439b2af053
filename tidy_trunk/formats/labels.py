"""What a recorder writes into a file about a take: scene, number, tracks. Source: [IXML]"""

from dataclasses import dataclass
from typing import BinaryIO, Final
from xml.etree.ElementTree import Element, ParseError, SubElement

from defusedxml import ElementTree
from defusedxml.common import DefusedXmlException

from tidy_trunk.formats.riff import UNKNOWN_SIZE, chunks

LARGEST_BYTES: Final = 1_000_000
"""ASSUMED_ largest description that is read: a recorder's has some thousand bytes."""


@dataclass(frozen=True, slots=True, kw_only=True)
class TakeLabels:
    """scene, take, tape, note: as text; circled: as the recorder marked it; tracks: channel, from 1, and name.

    rate: of its timecode, as a fraction `25/1`, drop: whether labels are dropped; "" where nothing is said.
    """

    scene: str = ""
    take: str = ""
    tape: str = ""
    note: str = ""
    circled: bool = False
    tracks: tuple[tuple[int, str], ...] = ()
    rate: str = ""
    drop: bool = False


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


def _parsed(body: bytes) -> TakeLabels | None:
    try:
        root = ElementTree.fromstring(body.rstrip(b"\0 \r\n\t"))
    except (ParseError, DefusedXmlException, ValueError, LookupError):
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
    )


def _text(element: Element, path: str) -> str:
    found = element.findtext(path)
    return " ".join((found or "").split())[:200]


def add_labels(root: Element, labels: TakeLabels) -> None:
    """What a take is called, into a description that is being written."""
    values = {
        "SCENE": labels.scene,
        "TAKE": labels.take,
        "TAPE": labels.tape,
        "CIRCLED": "TRUE" if labels.circled else "FALSE",
        "NOTE": labels.note,
    }
    for name, value in values.items():
        SubElement(root, name).text = value
    if labels.tracks:
        tracks = SubElement(root, "TRACK_LIST")
        SubElement(tracks, "TRACK_COUNT").text = str(len(labels.tracks))
        for channel, name in labels.tracks:
            track = SubElement(tracks, "TRACK")
            SubElement(track, "CHANNEL_INDEX").text = str(channel)
            SubElement(track, "INTERLEAVE_INDEX").text = str(channel)
            SubElement(track, "NAME").text = name
