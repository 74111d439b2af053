"""The page that says when the last copy was made, and gives everything."""

import zipfile

import pytest
from playwright.sync_api import Page, expect

from tests.plans import padded_plan


@pytest.mark.deep
def test_a_copy_is_made_and_everything_is_taken_along(screen: Page, service):
    service.create(padded_plan())
    screen.goto("/")
    expect(screen.get_by_text("no backup yet")).to_be_visible()
    screen.get_by_role("link", name="Backups").click()
    screen.get_by_role("button", name="Make a copy now").click()
    expect(screen.get_by_role("table").get_by_role("link", name="Download")).to_have_count(1)
    for link in ("Download everything", "Download"):
        with screen.expect_download() as download:
            screen.get_by_role("link", name=link, exact=True).click()
        assert "manifest.json" in zipfile.ZipFile(download.value.path()).namelist()
        assert download.value.suggested_filename.endswith(".backup")
    screen.get_by_role("link", name="All jobs").click()
    expect(screen.get_by_text("last backup")).to_be_visible()
