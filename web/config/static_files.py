"""Static files under names that tell their contents, so that browsers keep them for good."""

from whitenoise.storage import CompressedManifestStaticFilesStorage


class StaticFiles(CompressedManifestStaticFilesStorage):
    """Names with hashes, in the imports of scripts too: opening a page again asks for none of
    them."""

    support_js_module_import_aggregation = True
    # A pass gives the names of what was named in the pass before: as many as modules import
    # one another.
    max_post_process_passes = 20
