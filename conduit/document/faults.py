"""What is wrong with a field of a document, in words."""

from pydantic_core import ErrorDetails

from conduit.document.steps import WORDS


def fault_in_words(detail: ErrorDetails) -> str:
    """The end of a sentence that says what is wrong with a field, as “is missing”."""
    context = detail.get("ctx", {})
    match detail["type"]:
        case "missing":
            return "is missing"
        case "extra_forbidden":
            return "does not belong here; take it out"
        case "literal_error":
            return f"must be one of {context['expected'].replace(chr(39), '')}"
        case "union_tag_invalid" | "union_tag_not_found":
            return f"needs a “kind”, one of {context.get('expected_tags', ', '.join(WORDS)).replace(chr(39), '')}"
        case "greater_than" | "greater_than_equal":
            return f"must be more than {context.get('gt', context.get('ge'))}"
        case "less_than" | "less_than_equal":
            return f"must be less than {context.get('lt', context.get('le'))}"
        case "string_too_long":
            return f"is longer than {context['max_length']} letters"
        case "float_parsing" | "float_type" | "int_parsing" | "int_type":
            return "is not a number"
        case "value_error":
            return str(context["error"])
        case "json_invalid":
            return "is not JSON"
        case "list_type":
            return "must be a list"
        case "model_attributes_type" | "dict_type" | "model_type":
            return "must be an object with fields"
        case _:
            return f"{detail['msg'][:1].lower()}{detail['msg'][1:]}"
