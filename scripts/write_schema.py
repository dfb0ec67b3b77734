"""Publishes the JSON schemas of job documents and casting files: python scripts/write_schema.py"""

import json
from pathlib import Path

from ventrix.records.files.casting_document import casting_schema
from ventrix.records.files.job_document import schema

target = Path(__file__).parents[1] / "docs/formats/job.schema.json"
target.write_text(json.dumps(schema(), indent=1, ensure_ascii=False) + "\n", encoding="utf-8")
target = Path(__file__).parents[1] / "docs/formats/casting.schema.json"
target.write_text(json.dumps(casting_schema(), indent=1, ensure_ascii=False) + "\n", encoding="utf-8")
