"""All papers of a day in one archive, with a list of checksums; the same papers give the same bytes."""

import hashlib
import io
import zipfile
from collections.abc import Mapping
from datetime import datetime
from typing import Final

LIST: Final = "sha256sum.txt"


def package(papers: Mapping[str, bytes], made: datetime) -> bytes:
    """Files by their names, in order, and the list that `sha256sum -c` reads. `made`: the moment that each says, from 1980 on."""
    sums = "".join(f"{hashlib.sha256(data).hexdigest()}  {name}\n" for name, data in sorted(papers.items()))
    box = io.BytesIO()
    with zipfile.ZipFile(box, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, data in [*sorted(papers.items()), (LIST, sums.encode())]:
            info = zipfile.ZipInfo(name, date_time=made.timetuple()[:6])
            info.compress_type = zipfile.ZIP_DEFLATED
            info.external_attr = 0o644 << 16
            archive.writestr(info, data)
    return box.getvalue()
