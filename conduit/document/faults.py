"""What is wrong with a field of a document, in words."""

from pydantic_core import ErrorDetails

from conduit.catalogue import Message, message, said_by
from conduit.document.steps import KINDS
from conduit.units import UnreadableLength


def meanings_of(detail: ErrorDetails) -> tuple[str, ...]:
    """What may be written instead of a length that can be meant in two ways; nothing for what cannot."""
    error = detail.get("ctx", {}).get("error")
    return error.meanings if isinstance(error, UnreadableLength) else ()


def fault_in_words(detail: ErrorDetails) -> Message:
    """The end of a sentence that says what is wrong with a field, as “is missing”."""
    context = detail.get("ctx", {})
    match detail["type"]:
        case "missing":
            return message("fault.missing")
        case "extra_forbidden":
            return message("fault.does_not_belong")
        case "literal_error":
            return message("fault.one_of", choices=context["expected"].replace("'", ""))
        case "union_tag_invalid" | "union_tag_not_found":
            choices = context.get("expected_tags", ", ".join(KINDS))
            return message("fault.kind", choices=choices.replace("'", ""))
        case "greater_than" | "greater_than_equal":
            return message("fault.more_than", bound=str(context.get("gt", context.get("ge"))))
        case "less_than" | "less_than_equal":
            return message("fault.less_than", bound=str(context.get("lt", context.get("le"))))
        case "string_too_long":
            return message("fault.too_long", most=context["max_length"])
        case "float_parsing" | "float_type" | "int_parsing" | "int_type":
            return message("fault.no_number")
        case "value_error":
            return said_by(context["error"])
        case "json_invalid":
            return message("fault.no_json")
        case "list_type":
            return message("fault.no_list")
        case "model_attributes_type" | "dict_type" | "model_type":
            return message("fault.no_object")
        case _:
            return Message(f"{detail['msg'][:1].lower()}{detail['msg'][1:]}")
