"""What a reader may do: files come from anywhere, and what decodes them is a million lines of C.

It is called before anything else is imported, as threads cannot be confined afterwards. What the system does not give is left out,
and told by `./tidy doctor`.
"""

import ctypes
import json
import os
import resource
import shutil
import signal
import sys
import tempfile
from collections.abc import Iterable, Sequence
from contextlib import suppress
from dataclasses import asdict, dataclass
from pathlib import Path
from typing import Final

MOST_MEMORY_BYTES: Final = 3 * 1024**3
"""ASSUMED_ address space of a reader: an hour of eight channels takes a tenth of it, and two of them leave a laptop usable."""

MOST_CPU_S: Final = 3600
"""ASSUMED_ time that a reader may compute: a week's files are laid over each other in less."""

MOST_FILES_OPEN: Final = 512
"""ASSUMED_ more than the 200 files with two sidecars each that are laid over each other at once, which are open one by one."""

BEHIND: Final = 10
"""ASSUMED_ niceness: what is computed for somebody at the screen goes first."""

LEFT_FREE_BYTES: Final = 500_000_000
"""ASSUMED_ room that what a reader unpacks leaves on the disk, as uploads do."""

READABLE: Final = (
    *("/usr", "/lib", "/lib64", "/bin", "/opt", "/etc/ld.so.cache", "/etc/alternatives", "/etc/localtime"),
    *("/proc/self", "/proc/cpuinfo", "/proc/meminfo", "/proc/stat", "/sys/devices/system/cpu", "/dev/urandom"),
)
"""What every program loads, and what numpy asks of the machine. [PRACTICE]"""

CONTROL_GROUPS: Final = Path("/sys/fs/cgroup")
"""Where the system keeps its control groups. [LINUX]"""

GROUP: Final = "tidy-trunk-readers"
"""ASSUMED_ name of the control group of all readers."""

CREATE_RULESET, ADD_RULE, RESTRICT_SELF = 444, 445, 446
"""Numbers of Landlock's system calls, alike on all processors. [LINUX]"""

VERSION: Final = 1
"""Asks for Landlock's version instead of making a ruleset. [LINUX]"""

PATH_BENEATH: Final = 1
"""A rule about what lies below a path. [LINUX]"""

EXECUTE, WRITE_FILE, READ_FILE, READ_DIR = 1, 2, 4, 8
REMOVE_DIR, REMOVE_FILE, MAKE_DIR, MAKE_REG, TRUNCATE = 16, 32, 128, 256, 16384
"""Rights over files, by Landlock's bits. [LINUX]"""

RIGHTS: Final = {1: 0x1FFF, 2: 0x3FFF, 3: 0x7FFF, 4: 0x7FFF}
"""All rights that a version of Landlock knows; later ones as the last, which leaves devices' own commands alone. [LINUX]"""

OF_FILES: Final = EXECUTE | WRITE_FILE | READ_FILE | TRUNCATE
"""Rights that a single file can have; the others are of folders. [LINUX]"""

SET_DEATH_SIGNAL, NO_NEW_PRIVILEGES = 1, 38
"""Numbers of `prctl`. [LINUX]"""

NEW_USERS, NEW_NETWORK = 0x10000000, 0x40000000
"""Namespaces of `unshare`. [LINUX]"""


@dataclass(frozen=True, slots=True)
class Confinement:
    """What holds of a reader. files: it sees no other folder than that of its files; network: there is none; memory: all readers
    together have a share of the machine's, beside the limit that each has for itself."""

    files: bool
    network: bool
    memory: bool


class _Ruleset(ctypes.Structure):
    _fields_ = (("files", ctypes.c_uint64),)


class _Beneath(ctypes.Structure):
    _pack_ = 1
    _fields_ = (("allowed", ctypes.c_uint64), ("folder", ctypes.c_int32))


def confine(folder: Path, *, reads: Sequence[Path] = (), writes: Sequence[Path] = ()) -> Confinement:
    """This process and all that it starts: less memory, time and disk, files of one folder alone, no network.

    It also ends with whoever started it. `folder`: which may be written in, its temporary files too. `reads`, `writes`: folders
    of the user's that it was asked to read, and to write copies into.
    """
    tempfile.tempdir = str(folder)
    os.nice(BEHIND)
    memory = _share_memory()
    _limit([folder, *writes])
    libc = ctypes.CDLL(None, use_errno=True)
    libc.prctl(SET_DEATH_SIGNAL, signal.SIGKILL, 0, 0, 0)
    # An ordinary user may only leave the network as the owner of a namespace of its own.
    network = not libc.unshare(NEW_NETWORK if os.geteuid() == 0 else NEW_USERS | NEW_NETWORK)
    libc.prctl(NO_NEW_PRIVILEGES, 1, 0, 0, 0)
    code = [str(Path(__file__).parents[2]), sys.prefix, sys.base_prefix, *READABLE]
    code_and_reads = [*(Path(place) for place in code), *reads]
    return Confinement(_only(libc, [folder, *writes], code_and_reads), network, memory)


def _share_memory() -> bool:
    """Into the control group of all readers, where the system lets us make one: theirs is half of the machine's memory."""
    most = os.sysconf("SC_PAGE_SIZE") * os.sysconf("SC_PHYS_PAGES") // 2
    try:
        told = [line.split(":", 2) for line in Path("/proc/self/cgroup").read_text().splitlines()]
    except OSError:
        return False
    for _, controllers, path in told:
        # Of the older kind each controller has a tree of its own; the newer one has no names, and one tree.
        tree, limit = ("memory", "memory.limit_in_bytes") if controllers == "memory" else ("", "memory.max")
        if controllers not in ("", "memory"):
            continue
        group = CONTROL_GROUPS / tree / path.lstrip("/").removesuffix(f"/{GROUP}") / GROUP
        with suppress(OSError):
            group.mkdir(exist_ok=True)
            (group / limit).write_text(str(most))
            (group / "cgroup.procs").write_text("0")  # whoever writes it
            return True
    return False


def _limit(folders: Sequence[Path]) -> None:
    room = max(max(shutil.disk_usage(folder).free for folder in folders) - LEFT_FREE_BYTES, 0)
    for what, most in (
        (resource.RLIMIT_AS, MOST_MEMORY_BYTES),
        (resource.RLIMIT_CPU, MOST_CPU_S),
        (resource.RLIMIT_FSIZE, room),
        (resource.RLIMIT_NOFILE, MOST_FILES_OPEN),
        (resource.RLIMIT_CORE, 0),
    ):
        hard = resource.getrlimit(what)[1]
        least = most if hard == resource.RLIM_INFINITY else min(most, hard)
        resource.setrlimit(what, (least, least))


def _only(libc: ctypes.CDLL, folders: Sequence[Path], code: Iterable[Path]) -> bool:
    """Whether from now on nothing can be opened but `folders`, and `code` to read."""
    version = libc.syscall(CREATE_RULESET, None, 0, VERSION)
    if version < 1:
        return False
    rights = RIGHTS[min(version, max(RIGHTS))]
    asked = _Ruleset(rights)
    ruleset = libc.syscall(CREATE_RULESET, ctypes.byref(asked), ctypes.sizeof(asked), 0)
    if ruleset < 0:
        return False
    reads = READ_FILE | READ_DIR | EXECUTE
    writes = READ_FILE | READ_DIR | WRITE_FILE | REMOVE_DIR | REMOVE_FILE | MAKE_DIR | MAKE_REG | TRUNCATE
    for place, allowed in [
        *((folder, writes) for folder in folders),
        (Path(os.devnull), READ_FILE | WRITE_FILE),
        *((item, reads) for item in code),
    ]:
        _allow(libc, ruleset, place, allowed & rights)
    done: bool = libc.syscall(RESTRICT_SELF, ruleset, 0) == 0
    os.close(ruleset)
    return done


def _allow(libc: ctypes.CDLL, ruleset: int, place: Path, allowed: int) -> None:
    try:
        handle = os.open(place, os.O_PATH | os.O_CLOEXEC)
    except OSError:
        return  # not on this system
    rule = _Beneath(allowed if place.is_dir() else allowed & OF_FILES, handle)
    libc.syscall(ADD_RULE, ruleset, PATH_BENEATH, ctypes.byref(rule), 0)
    os.close(handle)


def main() -> None:
    """What holds here, as JSON: `python -m tidy_trunk.tasks.confinement FOLDER`."""
    print(json.dumps(asdict(confine(Path(sys.argv[1])))))


if __name__ == "__main__":
    main()
