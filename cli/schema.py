"""`crelda schema run|plan`: the JSON schema of the run document or of the plan."""

import json
import sys

from pydantic import BaseModel

from cli.as_a_pipe import end_with_the_reader
from conduit.document import RunDocument
from conduit.plan import Plan

MODELS: dict[str, type[BaseModel]] = {"run": RunDocument, "plan": Plan}


def main(arguments: list[str]) -> int:
    """Print the schema that is asked for."""
    print(json.dumps(MODELS[arguments[0]].model_json_schema(), indent=2))
    return 0


if __name__ == "__main__":
    end_with_the_reader()
    sys.exit(main(sys.argv[1:]))
