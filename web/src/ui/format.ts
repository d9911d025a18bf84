// How amounts, days and numbers of things are written.
import type { PackInfo } from "../api/types";

/** How a law's country writes numbers: which sign stands before the decimals. */
type Numbers = PackInfo["numbers"];

function written(locale: string) {
  return {
    whole: new Intl.NumberFormat(locale, { maximumFractionDigits: 0 }),
    cents: new Intl.NumberFormat(locale, { minimumFractionDigits: 2, maximumFractionDigits: 2 }),
    decimals: new Intl.NumberFormat(locale, { maximumFractionDigits: 9 }),
  };
}

const WRITTEN = { point: written("en-US"), comma: written("de-DE") };
const MINUS = "−";
let numbers: Numbers = "point";

/** Numbers are written as in the country whose household is open; one is open at a time. */
export function writeNumbers(as: Numbers) {
  numbers = as;
}

function signed(text: string, negative: boolean) {
  return negative && /[1-9]/.test(text) ? MINUS + text : text;
}

/** An amount in whole units with a true minus sign. */
export function units(amount: string): string {
  const value = Number(amount);
  return signed(WRITTEN[numbers].whole.format(Math.abs(value)), value < 0);
}

/** An amount with its cents. */
export function exact(amount: string): string {
  const value = Number(amount);
  return signed(WRITTEN[numbers].cents.format(Math.abs(value)), value < 0);
}

/** An amount with its cents where it has any. */
export function precise(amount: string): string {
  return Number(amount) % 1 === 0 ? units(amount) : exact(amount);
}

/** A difference: what is dearer carries a plus. */
export function difference(amount: string): string {
  const value = Number(amount);
  return value > 0 ? `+${units(amount)}` : units(amount);
}

/** A balance in words: "312 due", "7,920 back", "even". */
export function balance(amount: string): string {
  const value = Number(amount);
  if (value === 0) return "even";
  return `${WRITTEN[numbers].whole.format(Math.abs(value))} ${value > 0 ? "due" : "back"}`;
}

const THOUSANDS = {
  point: /^-?\d{1,3}(?:([,\s])\d{3})(?:\1\d{3})*(?:\.\d*)?$/,
  comma: /^-?\d{1,3}(?:([.\s])\d{3})(?:\1\d{3})*(?:,\d*)?$/,
};
const GROUPS = { point: /[,\s]/g, comma: /[.\s]/g };

/**
 * An amount as a person types it, as the plain decimal that the server reads: with the sign of the currency, groups of
 * three, decimals as the country writes them. What is grouped otherwise goes on as it is, and the server says what could
 * be meant.
 */
export function typedAmount(text: string): string {
  const signed = text
    .trim()
    .replace(MINUS, "-")
    .replace(/^(-?)\s*\p{L}{0,2}\p{Sc}\s*/u, "$1");
  const together = THOUSANDS[numbers].test(signed) ? signed.replaceAll(GROUPS[numbers], "") : signed;
  const plain = numbers === "comma" ? together.replace(/^(-?\d*),(\d*)$/, "$1.$2") : together;
  return plain.replace(/^(-?)\./, "$10.").replace(/\.$/, "");
}

/** A number with the decimals that it has. */
export function decimal(text: string): string {
  const value = Number(text);
  return Number.isNaN(value) ? text : WRITTEN[numbers].decimals.format(value);
}

export function isZero(amount: string) {
  return Number(amount) === 0;
}

export function count(n: number, one: string, many = `${one}s`) {
  return `${WRITTEN[numbers].whole.format(n)} ${n === 1 ? one : many}`;
}

/** A return year, and whether it is for planning only. */
export function yearOf(year: number, planning: number[] | undefined) {
  return planning?.includes(year) ? `${year} · planning` : String(year);
}

/** The same words with a capital first. */
export function capital(words: string) {
  return words.charAt(0).toUpperCase() + words.slice(1);
}

const clock = new Intl.DateTimeFormat("en-GB", { hour: "2-digit", minute: "2-digit" });
const day = new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "short" });

export function time(iso: string) {
  return clock.format(new Date(iso));
}

/** When something was touched: "today 14:02", "12 Nov". */
export function touched(iso: string) {
  const then = new Date(iso);
  return then.toDateString() === new Date().toDateString() ? `today ${clock.format(then)}` : day.format(then);
}

/** The same where it is plain what it tells: of today the time alone. */
export function lately(iso: string) {
  return touched(iso).replace("today ", "");
}

const dated = new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "short", year: "numeric" });

/** Today: "12 Nov 2026". */
export function today() {
  return dated.format(new Date());
}

/** A day of a file: "2026-01-28" is "28 Jan 2026". */
export function dayOf(iso: string) {
  const day = new Date(`${iso}T12:00:00`);
  return Number.isNaN(day.getTime()) ? iso : dated.format(day);
}

/** A moment: "12 Nov 14:02". */
export function moment(iso: string) {
  const then = new Date(iso);
  return `${day.format(then)} ${clock.format(then)}`;
}
