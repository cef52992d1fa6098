"""What the docs say of the code is what the code says."""

from tools.model_doc import DOC, written


def test_the_assumptions_and_the_example_in_the_docs_are_those_of_the_code():
    text = DOC.read_text(encoding="utf-8")
    assert written(text) == text, "run python -m tools.model_doc"
