// Fields that no law declares: names, days, shares.
import type { Field } from "../api/types";

export function field(id: string, label: string, kind: Field["kind"]): Field {
  return {
    id,
    number: "",
    label,
    help: "",
    kind,
    secret: false,
    shape: "",
    blank: "",
    years: {},
    lasts: false,
    only: null,
    opens: [],
    compared: false,
  };
}
