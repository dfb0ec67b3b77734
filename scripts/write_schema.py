"""Publishes the JSON schema of job documents: python scripts/write_schema.py"""

import json
from pathlib import Path

from ventrix.records.files.job_document import schema

target = Path(__file__).parents[1] / "docs/formats/job.schema.json"
target.write_text(json.dumps(schema(), indent=1, ensure_ascii=False) + "\n", encoding="utf-8")
