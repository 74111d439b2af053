"""Encryption on the set's own network: a certificate of this machine's own, and the authority that a telephone may trust.

Nobody sells certificates for addresses like 192.168.0.5. So the data folder has an authority of its own, which can speak for
addresses of private networks alone; a telephone asks once, or is told to trust it.
"""

import ipaddress
import socket
import ssl
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Final

from cryptography import x509
from cryptography.exceptions import UnsupportedAlgorithm
from cryptography.hazmat.primitives import hashes, serialization
from cryptography.hazmat.primitives.asymmetric import ec
from cryptography.x509.oid import ExtendedKeyUsageOID, NameOID

from tidy_trunk.errors import FormatError, SetupError
from tidy_trunk.media.files import new_file

NAME: Final = "Tidy Trunk on this set"
"""ASSUMED_ name under which a telephone lists it."""

AUTHORITY_LASTS: Final = timedelta(days=3650)
"""ASSUMED_ as long as a laptop."""

LASTS: Final = timedelta(days=397)
"""The longest that browsers take. [CABF]"""

RENEWED_BEFORE: Final = timedelta(days=30)
"""ASSUMED_ time before its end from which on a start makes a new one."""

CLOCK_OFF: Final = timedelta(days=1)
"""ASSUMED_ by how much a telephone's clock may be slow."""

PRIVATE: Final = ("10.0.0.0/8", "172.16.0.0/12", "192.168.0.0/16", "169.254.0.0/16", "fc00::/7", "fe80::/10")
"""Networks that are nobody's on the internet: the authority can speak for nothing else. [RFC1918]"""


@dataclass(frozen=True, slots=True)
class OwnCertificate:
    """context: what the server encrypts with; fingerprint: of its certificate, by SHA-256; authority: PEM."""

    context: ssl.SSLContext
    fingerprint: str
    authority: bytes


def own_certificate(home: Path, address: str, now: datetime | None = None) -> OwnCertificate:
    """The certificate of a data folder for an address; made anew where the address has changed or its time is nearly over.

    Raises SetupError: it cannot be kept.
    """
    now = now or datetime.now(UTC)
    folder = home / "certificate"
    try:
        folder.mkdir(mode=0o700, exist_ok=True)
        authority = _kept(folder / "authority.pem") or _new_authority(folder / "authority.pem", now)
        found = _kept(folder / "server.pem")
        if found is None or not _serves(found[0], authority[0], address, now):
            found = _new_server(folder / "server.pem", authority, address, now)
    except (OSError, FormatError) as error:
        raise SetupError(f"cannot keep a certificate in {folder}: {error}") from error
    context = ssl.SSLContext(ssl.PROTOCOL_TLS_SERVER)
    context.minimum_version = ssl.TLSVersion.TLSv1_2
    context.load_cert_chain(folder / "server.pem")
    digest = found[0].fingerprint(hashes.SHA256()).hex(":").upper()
    return OwnCertificate(context, digest, authority[0].public_bytes(serialization.Encoding.PEM))


KeyedCertificate = tuple[x509.Certificate, ec.EllipticCurvePrivateKey]


def _kept(path: Path) -> KeyedCertificate | None:
    """A certificate with its key from a file; None where there is none, or half of one."""
    if not path.exists():
        return None
    data = path.read_bytes()
    try:
        key = serialization.load_pem_private_key(data, None)
        certificate = x509.load_pem_x509_certificate(data)
    except (ValueError, TypeError, UnsupportedAlgorithm):
        return None
    if not isinstance(key, ec.EllipticCurvePrivateKey) or key.public_key() != certificate.public_key():
        return None
    return certificate, key


def _keep(path: Path, pair: KeyedCertificate) -> KeyedCertificate:
    certificate, key = pair
    with new_file(path, mode=0o600) as file:
        file.write(certificate.public_bytes(serialization.Encoding.PEM))
        file.write(
            key.private_bytes(
                serialization.Encoding.PEM, serialization.PrivateFormat.PKCS8, serialization.NoEncryption()
            )
        )
    return pair


def _serves(certificate: x509.Certificate, authority: x509.Certificate, address: str, now: datetime) -> bool:
    names = certificate.extensions.get_extension_for_class(x509.SubjectAlternativeName).value
    is_ours = certificate.issuer == authority.subject
    is_fresh = certificate.not_valid_after_utc - now > RENEWED_BEFORE
    return is_ours and is_fresh and ipaddress.ip_address(address) in names.get_values_for_type(x509.IPAddress)


def _builder(subject: str, lasts: timedelta, now: datetime) -> x509.CertificateBuilder:
    return (
        x509.CertificateBuilder()
        .subject_name(x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, subject)]))
        .serial_number(x509.random_serial_number())
        .not_valid_before(now - CLOCK_OFF)
        .not_valid_after(now + lasts)
    )


def _new_authority(path: Path, now: datetime) -> KeyedCertificate:
    key = ec.generate_private_key(ec.SECP256R1())
    subject = f"{NAME} {x509.random_serial_number() % 10**6:06}"  # a telephone may know several
    networks = [x509.IPAddress(ipaddress.ip_network(network)) for network in PRIVATE]
    certificate = (
        _builder(subject, AUTHORITY_LASTS, now)
        .issuer_name(x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, subject)]))
        .public_key(key.public_key())
        .add_extension(x509.BasicConstraints(ca=True, path_length=0), critical=True)
        .add_extension(_usage(key_cert_sign=True), critical=True)
        .add_extension(x509.NameConstraints([*networks, x509.DNSName("local")], None), critical=True)
        .add_extension(x509.SubjectKeyIdentifier.from_public_key(key.public_key()), critical=False)
        .sign(key, hashes.SHA256())
    )
    return _keep(path, (certificate, key))


def _new_server(path: Path, authority: KeyedCertificate, address: str, now: datetime) -> KeyedCertificate:
    key = ec.generate_private_key(ec.SECP256R1())
    issuer, issuer_key = authority
    names = [x509.IPAddress(ipaddress.ip_address(address)), x509.DNSName(f"{_host()}.local")]
    certificate = (
        _builder(NAME, LASTS, now)
        .issuer_name(issuer.subject)
        .public_key(key.public_key())
        .add_extension(x509.BasicConstraints(ca=False, path_length=None), critical=True)
        .add_extension(_usage(digital_signature=True), critical=True)
        .add_extension(x509.ExtendedKeyUsage([ExtendedKeyUsageOID.SERVER_AUTH]), critical=False)
        .add_extension(x509.SubjectAlternativeName(names), critical=False)
        .add_extension(x509.SubjectKeyIdentifier.from_public_key(key.public_key()), critical=False)
        .add_extension(x509.AuthorityKeyIdentifier.from_issuer_public_key(issuer_key.public_key()), critical=False)
        .sign(issuer_key, hashes.SHA256())
    )
    return _keep(path, (certificate, key))


def _usage(*, key_cert_sign: bool = False, digital_signature: bool = False) -> x509.KeyUsage:
    return x509.KeyUsage(
        digital_signature=digital_signature,
        key_cert_sign=key_cert_sign,
        content_commitment=False,
        key_encipherment=False,
        data_encipherment=False,
        key_agreement=False,
        crl_sign=False,
        encipher_only=False,
        decipher_only=False,
    )


def _host() -> str:
    """This machine's name, as far as it may stand in a certificate."""
    plain = "".join(letter for letter in socket.gethostname().partition(".")[0].lower() if letter.isascii())
    return "".join(letter for letter in plain if letter.isalnum() or letter == "-") or "tidy-trunk"
