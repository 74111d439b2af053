"""Setting up: once, again when its inputs change, and explained when it fails."""

import subprocess
import sys
from pathlib import Path

import pytest

from launcher import environment, frontend, steps, suite, system
from launcher.steps import ROOT, StepFailed, fingerprint, is_current

REAL_RUN = subprocess.run


def test_a_fingerprint_changes_with_contents_and_names(tmp_path, monkeypatch):
    monkeypatch.setattr(steps, "ROOT", tmp_path)
    folder = tmp_path / "src"
    folder.mkdir()
    (folder / "a").write_text("1")
    first = fingerprint([folder], "x")
    assert fingerprint([folder], "x") == first
    (folder / "a").write_text("2")
    second = fingerprint([folder], "x")
    (folder / "a").rename(folder / "b")
    assert len({first, second, fingerprint([folder], "x"), fingerprint([folder], "y")}) == 4


def test_a_stamp_is_current_only_for_its_mark(tmp_path):
    stamp = tmp_path / "stamp"
    assert not is_current(stamp, "mark")
    stamp.write_text("mark")
    assert is_current(stamp, "mark") and not is_current(stamp, "other")


def test_a_failed_step_says_which_and_why():
    with pytest.raises(StepFailed, match=r"step 'build' failed: .* ended with 3\nout of flour"):
        steps.run("build", [sys.executable, "-c", "print('out of flour'); raise SystemExit(3)"])
    with pytest.raises(StepFailed, match="step 'build' failed: cannot run no-such-program"):
        steps.run("build", ["no-such-program"])


@pytest.fixture
def bare(monkeypatch):
    """A machine that lacks everything, and a record of what would be run."""
    ran: list[list[str]] = []
    monkeypatch.setattr(system, "_is_there", lambda package: False)
    monkeypatch.setattr(system, "run", lambda step, command, **options: ran.append(list(command)))
    monkeypatch.setattr(system, "say", lambda text: None)
    return ran


def test_root_installs_through_apt(bare, monkeypatch):
    monkeypatch.setattr(system.os, "geteuid", lambda: 0)
    monkeypatch.setattr(system.shutil, "which", lambda name: f"/usr/bin/{name}")
    system.ensure_packages(["postgresql", "chromium"])
    assert bare[0][:2] == ["apt-get", "update"]
    assert bare[1][0] == "apt-get" and bare[1][-2:] == ["postgresql", "chromium"]


def test_others_install_through_sudo(bare, monkeypatch):
    monkeypatch.setattr(system.os, "geteuid", lambda: 1000)
    monkeypatch.setattr(system.shutil, "which", lambda name: f"/usr/bin/{name}")
    system.ensure_packages(["postgresql"])
    assert bare[0][0] == "sudo" and "apt-get" in bare[0]


def test_without_sudo_one_line_says_what_to_install(bare, monkeypatch):
    monkeypatch.setattr(system.os, "geteuid", lambda: 1000)
    monkeypatch.setattr(system.shutil, "which", lambda name: None if name == "sudo" else f"/usr/bin/{name}")
    with pytest.raises(StepFailed) as failure:
        system.ensure_packages(["postgresql", "chromium"])
    assert str(failure.value) == "needs postgresql and chromium. As root: apt-get install postgresql chromium"
    assert not bare


def test_without_apt_it_says_so(bare, monkeypatch):
    monkeypatch.setattr(system.shutil, "which", lambda name: None)
    with pytest.raises(StepFailed, match="no apt-get here"):
        system.ensure_packages(["postgresql"])


def test_what_is_there_is_left_alone(monkeypatch):
    monkeypatch.setattr(system, "run", lambda *args, **options: pytest.fail("nothing is missing"))
    system.ensure_packages(["postgresql", "chromium"])


def test_a_database_of_ones_own_needs_no_server(monkeypatch):
    monkeypatch.delenv("TIDY_TRUNK_DATABASE_URL", raising=False)
    assert system.needed_to_serve() == ["postgresql"]
    monkeypatch.setenv("TIDY_TRUNK_DATABASE_URL", "postgresql://somewhere/else")
    assert system.needed_to_serve() == []


@pytest.mark.parametrize("version", ["v18.20.1", "v4.0.0"])
def test_an_old_node_is_refused(monkeypatch, version):
    monkeypatch.setattr(frontend.shutil, "which", lambda name: f"/usr/bin/{name}")
    answer = subprocess.CompletedProcess([], 0, stdout=f"{version}\n")
    monkeypatch.setattr(frontend.subprocess, "run", lambda *args, **options: answer)
    with pytest.raises(StepFailed, match=f"this is {version}"):
        frontend._require_node()


def test_no_node_is_refused(monkeypatch):
    monkeypatch.setattr(frontend.shutil, "which", lambda name: None)
    with pytest.raises(StepFailed, match="install nodejs and npm"):
        frontend._require_node()


def test_built_parts_are_current_and_not_built_again(monkeypatch):
    """In this very checkout, set up by the run of the tests."""
    for module in (frontend, environment):
        monkeypatch.setattr(module, "run", lambda *args, **options: pytest.fail("built twice"))
    environment.ensure_development()
    environment.ensure_runtime()
    frontend.ensure_modules()
    frontend.ensure_build()


def test_the_suite_runs_every_part_and_names_what_failed(monkeypatch, capsys):
    ran = []

    def run(command, **options):
        ran.append(command)
        return subprocess.CompletedProcess(command, 1 if "lint" in command or "mypy" in command else 0)

    monkeypatch.setattr(suite, "_prepare", dict)
    monkeypatch.setattr(suite.subprocess, "run", run)
    assert suite.run_tests([]) == 1
    assert "failed: mypy, eslint" in capsys.readouterr().err
    assert len(ran) == 9, "one failure does not hide the next"


def test_locks_carry_hashes_and_no_address():
    for lock in ("requirements.lock", "requirements-dev.lock"):
        text = (ROOT / lock).read_text()
        assert "--hash=sha256:" in text and "://" not in text
    assert '"resolved"' not in (ROOT / "web" / "package-lock.json").read_text()


def test_the_launcher_hands_over_from_any_folder(tmp_path: Path):
    done = REAL_RUN(
        [str(ROOT / "tidy"), "convert", "0", "dBV", "--to", "dBu"], cwd=tmp_path, capture_output=True, text=True
    )
    assert done.returncode == 0 and done.stdout.startswith("2.218")
