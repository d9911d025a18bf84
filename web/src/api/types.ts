// The server's types under short names.
import type { components } from "./schema";

type Schemas = components["schemas"];
export type Opened = Schemas["Opened"];
export type Outcome = Schemas["Outcome"];
export type Household = Schemas["Household"];
export type Person = Schemas["Person"];
export type Paper = Schemas["Paper"];
export type Share = Schemas["Share"];
export type Entry = Schemas["Entry"];
export type Field = Schemas["Field"];
export type PaperKind = Schemas["PaperKind"];
export type PackInfo = Schemas["PackInfo"];
export type Command = Schemas["Command"];
export type Problem = Schemas["Problem"];
export type Fault = Schemas["Fault"];
export type Cell = Schemas["Cell"];
export type Row = Schemas["Row"];
export type Line = Schemas["Line"];
export type LineInput = Schemas["LineInput"];
export type Limit = Schemas["Limit"];
export type Point = Schemas["Point"];
export type Place = Schemas["Place"];
export type NamedWay = Schemas["NamedWay"];
export type Decision = Schemas["DecisionOutcome"];
export type HouseholdRow = Schemas["HouseholdRow"];
export type SignedIn = Schemas["SignedIn"];
export type CurvePoint = Schemas["CurvePoint"];
