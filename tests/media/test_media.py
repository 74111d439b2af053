"""Sounds beside the database: removed where a user deletes them, and never by a start."""

from uuid import uuid4

from tests.measured import measured
from tests.plans import boom_in_bag
from tidy_trunk.media.sounds import Media
from tidy_trunk.services.container import services_on
from tidy_trunk.store import MediaStore
from tidy_trunk.tasks.requests import Measure


def with_sound(services):
    """A job with a recording, and its sound on the disk in two parts."""
    job = services.jobs.create(boom_in_bag()).revision.job
    recording = measured(services, job, uuid4(), "take", Measure(), {}).id
    parts = [services.media.kept / name for name in (str(recording), f"{recording}.peaks")]
    for part in parts:
        part.write_bytes(b"sound")
    return job, recording, parts


def test_a_deleted_job_takes_its_sounds_with_it(services):
    """Said before: they stayed until the next start."""
    job, _, parts = with_sound(services)
    other = with_sound(services)[2]
    services.jobs.delete(job)
    assert not any(part.exists() for part in parts) and all(part.exists() for part in other)
    assert services.media._store.unwanted() == frozenset()


def test_what_a_crash_left_to_be_deleted_is_deleted_by_the_next_start(services, database, tmp_path):
    """The intention stands in the database as soon as the job is gone from it."""
    job, recording, parts = with_sound(services)
    services.jobs._store.delete(job)  # and here the machine stops
    assert services.media._store.unwanted() == {recording} and all(part.exists() for part in parts)
    again = services_on(database, tmp_path, tmp_path / "recordings")
    assert not any(part.exists() for part in parts) and again.media._store.unwanted() == frozenset()
    again.close()


def test_what_no_list_names_is_set_aside_and_told(services, database, tmp_path, capsys):
    strange = services.media.kept / str(uuid4())
    strange.write_bytes(b"sound")
    again = services_on(database, tmp_path, tmp_path / "recordings")
    assert (again.media.aside / strange.name).read_bytes() == b"sound"
    assert "1 sounds that no job lists were set aside" in capsys.readouterr().err
    again.close()


def test_another_database_on_the_same_folder_touches_nothing(services, tmp_path):
    """Said before: 86 sounds of another database to 0. A database has a name, and its sounds lie below it."""
    _, _, parts = with_sound(services)

    class Other:
        def identity(self):
            return uuid4()

        def listed(self):
            return frozenset()

        unwanted = awaited = listed

    Media(tmp_path / "recordings", Other())
    assert all(part.exists() for part in parts)


def test_sounds_of_an_older_version_are_found_again(services, database, tmp_path, capsys):
    *_, parts = with_sound(services)
    before = tmp_path / "recordings" / "kept"
    before.mkdir()
    for part in parts:
        part.replace(before / part.name)
    (before / str(uuid4())).write_bytes(b"of another database")
    again = services_on(database, tmp_path, tmp_path / "recordings")
    assert all(part.exists() for part in parts) and len(list(before.iterdir())) == 1
    assert "1 sounds in" in capsys.readouterr().err
    again.close()


def test_a_database_keeps_its_name(database):
    assert MediaStore(database).identity() == MediaStore(database).identity()


def test_a_sound_that_is_kept_in_the_moment_of_its_deletion_goes_after_a_crash(services, tmp_path):
    """Deleted while it is measured, and then the program dies before it has looked: the next start removes the sound."""
    job = services.jobs.create(boom_in_bag()).revision.job
    recording = measured(services, job, uuid4(), "take", Measure(), {}).id
    media = services.media
    (media.incoming / str(recording)).write_bytes(b"sound")
    services.jobs.delete(job)
    (media.incoming / str(recording)).replace(media.kept / str(recording))
    again = Media(tmp_path / "recordings", media._store)
    assert not list(again.kept.iterdir()) and not again.aside.exists()
    assert media._store.unwanted() == frozenset()
