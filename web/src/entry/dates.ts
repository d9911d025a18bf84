// Days as people type them, in the order of their country, and as they are shown.
import type { PackInfo } from "../api/types";

export type DayOrder = PackInfo["days"];

/** A day as the server reads it, or why the text is none. */
export type ReadDay = { iso: string } | { fault: string };

export const MONTHS = [
  "January",
  "February",
  "March",
  "April",
  "May",
  "June",
  "July",
  "August",
  "September",
  "October",
  "November",
  "December",
];

const ORDERS: Record<DayOrder, { parts: "ymd" | "mdy" | "dmy"; told: string }> = {
  year_month_day: { parts: "ymd", told: "year month day" },
  month_day_year: { parts: "mdy", told: "month day year" },
  day_month_year: { parts: "dmy", told: "day month year" },
};

/** A day in full: "14 May 1983". */
export function shownDay(iso: string): string {
  const [year, month, day] = iso.split("-").map(Number);
  const name = MONTHS[(month ?? 0) - 1];
  return name ? `${day} ${name.slice(0, 3)} ${year}` : iso;
}

/**
 * A day from its parts with or without separators: "5 14 83", "05141983", "14 May 1983"; month and day alone are in the
 * return year. Two digits of a year are the latest such year that is not after the return year by more than one.
 */
export function typedDay(text: string, order: DayOrder, year: number): ReadDay {
  const parts = partsOf(text.trim(), ORDERS[order].parts);
  const none = {
    fault: `“${text.trim()}” is no day. Type it as ${ORDERS[order].told}, such as ${example(order, year)}.`,
  };
  if (!parts) return none;
  const readings = ordersOf(parts, order).map((o) => reading(parts, o, year));
  const right = [...new Set(readings.filter((r) => r.days > 0 && r.day <= r.days && r.day > 0).map(isoOf))];
  const preferred = readings[0];
  if (preferred && preferred.days > 0) {
    const { day, days, month } = preferred;
    if (day > 0 && day <= days) return { iso: isoOf(preferred) };
    if (right.length === 0)
      return { fault: `${MONTHS[month - 1]} ${preferred.year} has ${days} days, not ${day}.` };
  }
  if (right.length === 1 && right[0]) return { iso: right[0] };
  if (right.length > 1) {
    const days = right.map(shownDay).join(" or ");
    return { fault: `“${text.trim()}” may be ${days}: type it as ${ORDERS[order].told}.` };
  }
  const near = readings.find((r) => r.days > 0);
  return near
    ? { fault: `${MONTHS[near.month - 1]} ${near.year} has ${near.days} days, not ${near.day}.` }
    : none;
}

function example(order: DayOrder, year: number) {
  return { ymd: `${year} 3 31`, mdy: `3 31 ${year}`, dmy: `31 3 ${year}` }[ORDERS[order].parts];
}

type Parts = { numbers: number[]; named?: number; long?: number };

/** The numbers of a text; the month by its name where that stands there, and which number has four digits. */
function partsOf(text: string, order: "ymd" | "mdy" | "dmy"): Parts | null {
  const words = text.match(/\p{L}+|\d+/gu) ?? [];
  if (/[^\p{L}\d\s./,-]/u.test(text) || words.length > 3) return null;
  const digits = words.filter((w) => /^\d/.test(w));
  const names = words.filter((w) => !/^\d/.test(w));
  if (names.length > 1 || digits.some((d) => d.length > 8)) return null;
  if (names[0]) {
    const named = MONTHS.findIndex((m) => m.toLowerCase().startsWith((names[0] ?? "").toLowerCase()));
    if (named < 0 || names[0].length < 3) return null;
    return { numbers: digits.map(Number), named: named + 1, long: longOf(digits) };
  }
  const cut = digits.length === 1 ? cutUp(digits[0] ?? "", order) : digits;
  return cut.length === 2 || cut.length === 3 ? { numbers: cut.map(Number), long: longOf(cut) } : null;
}

function longOf(digits: string[]) {
  const at = digits.findIndex((d) => d.length === 4 || Number(d) > 31);
  return at < 0 ? undefined : at;
}

/** Digits without separators: two for a day and a month, two or four for a year. */
function cutUp(digits: string, order: "ymd" | "mdy" | "dmy"): string[] {
  const cut = (...lengths: number[]) => {
    let from = 0;
    return lengths.map((length) => {
      from += length;
      return digits.slice(from - length, from);
    });
  };
  if (digits.length === 4) return cut(2, 2);
  if (digits.length === 6) return cut(2, 2, 2);
  if (digits.length !== 8) return [];
  const yearFirst = /^(19|20)/.test(digits) && (order !== "dmy" || Number(digits.slice(2, 4)) > 12);
  return yearFirst ? cut(4, 2, 2) : cut(2, 2, 4);
}

/** The orders that the parts allow, that of the country first. */
function ordersOf({ numbers, named, long }: Parts, order: DayOrder): string[] {
  const own = ORDERS[order].parts;
  if (named) return numbers.length === 1 ? ["d"] : long === 0 ? ["yd"] : ["dy"];
  if (numbers.length === 2) return own === "dmy" ? ["dm", "md"] : ["md", "dm"];
  if (long === 0) return ["ymd"];
  // A country that writes the year first says nothing of day and month before it: only the one possible reading counts.
  if (long === 2) return own === "dmy" ? ["dmy", "mdy"] : own === "mdy" ? ["mdy", "dmy"] : ["", "mdy", "dmy"];
  return [own, ...["mdy", "dmy"].filter((o) => o !== own)];
}

type Reading = { year: number; month: number; day: number; days: number };

function reading({ numbers, named }: Parts, order: string, returnYear: number): Reading {
  const at = (part: string) => (order.includes(part) ? (numbers[order.indexOf(part)] ?? 0) : 0);
  const month = named ?? at("m");
  const year = order.includes("y") ? fullYear(at("y"), returnYear) : returnYear;
  const days = month >= 1 && month <= 12 ? new Date(Date.UTC(year, month, 0)).getUTCDate() : 0;
  return { year, month, day: at("d"), days };
}

function fullYear(typed: number, returnYear: number) {
  if (typed > 99) return typed;
  const century = Math.floor((returnYear + 1) / 100) * 100;
  return century + typed <= returnYear + 1 ? century + typed : century - 100 + typed;
}

function isoOf({ year, month, day }: Reading) {
  const two = (n: number) => String(n).padStart(2, "0");
  return `${year}-${two(month)}-${two(day)}`;
}
