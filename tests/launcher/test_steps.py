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
    system.ensure_packages(["postgresql", "chromium-headless-shell"])
    assert bare[0][:2] == ["apt-get", "update"]
    assert bare[1][0] == "apt-get" and bare[1][-2:] == ["postgresql", "chromium-headless-shell"]


def test_others_install_through_sudo(bare, monkeypatch):
    monkeypatch.setattr(system.os, "geteuid", lambda: 1000)
    monkeypatch.setattr(system.shutil, "which", lambda name: f"/usr/bin/{name}")
    system.ensure_packages(["postgresql"])
    assert bare[0][0] == "sudo" and "apt-get" in bare[0]


def test_without_sudo_one_line_says_what_to_install(bare, monkeypatch):
    monkeypatch.setattr(system.os, "geteuid", lambda: 1000)
    monkeypatch.setattr(system.shutil, "which", lambda name: None if name == "sudo" else f"/usr/bin/{name}")
    with pytest.raises(StepFailed) as failure:
        system.ensure_packages(["postgresql", "chromium-headless-shell"])
    assert (
        str(failure.value)
        == "needs postgresql and chromium-headless-shell. As root: apt-get install postgresql chromium-headless-shell"
    )
    assert not bare


def test_without_apt_it_says_so(bare, monkeypatch):
    monkeypatch.setattr(system.shutil, "which", lambda name: None)
    with pytest.raises(StepFailed, match="no apt-get here"):
        system.ensure_packages(["postgresql"])


def test_what_is_there_is_left_alone(monkeypatch):
    monkeypatch.setattr(system, "run", lambda *args, **options: pytest.fail("nothing is missing"))
    system.ensure_packages(["postgresql", "chromium-headless-shell"])


def test_a_database_of_ones_own_needs_no_server(monkeypatch):
    monkeypatch.delenv("TIDY_TRUNK_DATABASE_URL", raising=False)
    assert system.needed_to_serve() == ["postgresql"]
    monkeypatch.setenv("TIDY_TRUNK_DATABASE_URL", "postgresql://somewhere/else")
    assert system.needed_to_serve() == []


@pytest.mark.parametrize("version", ["v18.20.1", "v4.0.0", "v20.18.3", "v21.7.0", "v22.11.0", "nonsense"])
def test_an_old_node_is_refused(monkeypatch, version):
    monkeypatch.setattr(frontend.shutil, "which", lambda name: f"/usr/bin/{name}")
    answer = subprocess.CompletedProcess([], 0, stdout=f"{version}\n")
    monkeypatch.setattr(frontend.subprocess, "run", lambda *args, **options: answer)
    with pytest.raises(StepFailed, match=f"this is {version}"):
        frontend._require_node()


@pytest.mark.parametrize("version", ["v20.19.0", "v22.12.0", "v24.1.0"])
def test_a_node_that_can_build_is_taken(monkeypatch, version):
    monkeypatch.setattr(frontend.shutil, "which", lambda name: f"/usr/bin/{name}")
    answer = subprocess.CompletedProcess([], 0, stdout=f"{version}\n")
    monkeypatch.setattr(frontend.subprocess, "run", lambda *args, **options: answer)
    frontend._require_node()


def test_no_node_is_refused(monkeypatch):
    monkeypatch.setattr(frontend.shutil, "which", lambda name: None)
    with pytest.raises(StepFailed, match="install nodejs and npm"):
        frontend._require_node()


@pytest.fixture
def former(tmp_path, monkeypatch):
    """An environment and a front end that work, made from an older state, and steps that a test decides about."""
    parts = {
        environment: ("VENV", "STAMP", tmp_path / ".venv"),
        frontend: ("DIST", "BUILD", tmp_path / "dist"),
    }
    for module, (folder, stamp, path) in parts.items():
        path.mkdir()
        (path / "works").touch()
        (path / ".made-from").write_text("an older state")
        monkeypatch.setattr(module, folder, path)
        monkeypatch.setattr(module, stamp, path / ".made-from")
        monkeypatch.setattr(module, "say", lambda text: None)
    packages = tmp_path / "node_modules"
    packages.mkdir()
    (packages / "works").touch()
    monkeypatch.setattr(frontend, "PACKAGES", packages)
    monkeypatch.setattr(frontend, "MODULES", packages / ".made-from")
    monkeypatch.setattr(frontend, "WEB", tmp_path)
    monkeypatch.setattr(frontend, "_require_node", lambda: None)
    return tmp_path


def half_done(step, command, *, cwd=None, env=None):
    """A step that is cut off in the middle, as by a network that goes away."""
    for argument in command:
        if ".new" in argument and "/" in argument:
            Path(argument.split("/bin/")[0]).mkdir(exist_ok=True)
    if cwd is not None:
        (cwd / "node_modules").mkdir(exist_ok=True)
    raise StepFailed(f"step '{step}' failed: no network")


@pytest.mark.parametrize("ensure", [environment.ensure_runtime, frontend.ensure_build])
def test_an_update_that_fails_leaves_the_former_one_working(former, monkeypatch, capsys, ensure):
    """Said before: the environment was removed before the new one stood, and nothing worked any more."""
    for module in (environment, frontend):
        monkeypatch.setattr(module, "run", half_done)
    before = sorted(path.name for path in former.iterdir())
    ensure()
    assert sorted(path.name for path in former.iterdir()) == before
    assert all((former / name / "works").exists() for name in before)
    assert "going on with what is there" in capsys.readouterr().err


def test_a_first_set_up_that_fails_says_so(former, monkeypatch):
    (former / ".venv" / ".made-from").unlink()
    monkeypatch.setattr(environment, "run", half_done)
    with pytest.raises(StepFailed, match="no network"):
        environment.ensure_runtime()


@pytest.mark.deep
def test_a_lock_that_is_broken_leaves_the_former_environment(former, monkeypatch):
    """With pip itself, which is given a package that does not have the hash it was promised."""
    (former / "requirements.lock").write_text(f"click==8.1.0 --hash=sha256:{'0' * 64}\n")
    monkeypatch.setattr(environment, "ROOT", former)
    monkeypatch.setattr(environment, "_mark", lambda lock: "the newest state")
    monkeypatch.setattr(
        environment,
        "run",
        lambda step, command, **more: steps.run(step, [*command, "--no-index"] if "pip" in command else command),
    )
    environment.ensure_runtime()
    assert (former / ".venv" / "works").exists() and not (former / ".venv.new").exists()


def test_an_update_cut_off_in_the_moment_of_taking_its_place_is_put_back(former):
    (former / "dist").rename(former / "dist.former")
    steps.put_back(former / "dist")
    assert (former / "dist" / "works").exists()


def test_what_was_built_beside_takes_the_place(former):
    with steps.built_beside(former / "dist") as fresh:
        fresh.mkdir()
        (fresh / "newer").touch()
        assert (former / "dist" / "works").exists(), "until it is whole"
    assert [path.name for path in (former / "dist").iterdir()] == ["newer"]
    assert not (former / "dist.former").exists()


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
        return subprocess.CompletedProcess(
            command, 1 if "lint" in command or "mypy" in command else 0, b"what is wrong"
        )

    monkeypatch.setattr(suite, "_prepare", dict)
    monkeypatch.setattr(suite.subprocess, "run", run)
    assert suite.run_tests([]) == 1
    printed = capsys.readouterr()
    assert "failed: mypy, eslint" in printed.err and printed.out.count("what is wrong") == 2
    assert len(ran) == 7, "one failure does not hide the next"


def test_locks_carry_hashes_and_no_address():
    for lock in ("requirements.lock", "requirements-dev.lock"):
        text = (ROOT / lock).read_text()
        assert "--hash=sha256:" in text and "://" not in text
    assert '"resolved"' not in (ROOT / "web" / "package-lock.json").read_text()


def test_an_old_python_is_told_in_one_line(tmp_path: Path):
    """Said before: a traceback."""
    (tmp_path / "tidy").write_bytes((ROOT / "tidy").read_bytes())
    old = tmp_path / "python3"
    old.write_text('#!/bin/sh\n[ "$1" = -V ] && echo "Python 3.9.2"\n[ "$1" != -c ]\n')
    for path in (tmp_path / "tidy", old):
        path.chmod(0o755)
    done = REAL_RUN([str(tmp_path / "tidy")], env={"PATH": f"{tmp_path}:/usr/bin:/bin"}, capture_output=True, text=True)
    assert done.returncode == 1
    assert done.stderr.startswith("tidy: needs Python 3.11 or newer; this is Python 3.9.2.")
    assert done.stderr.count("\n") == 1


def test_the_launcher_is_found_through_a_link(tmp_path: Path):
    (tmp_path / "tt").symlink_to(ROOT / "tidy")
    done = REAL_RUN([str(tmp_path / "tt"), "convert", "0", "dBV", "--to", "dBu"], capture_output=True, text=True)
    assert done.returncode == 0 and done.stdout.startswith("2.22 dBu")


def test_the_launcher_hands_over_from_any_folder(tmp_path: Path):
    done = REAL_RUN(
        [str(ROOT / "tidy"), "convert", "0", "dBV", "--to", "dBu"], cwd=tmp_path, capture_output=True, text=True
    )
    assert done.returncode == 0 and done.stdout.startswith("2.22 dBu")
