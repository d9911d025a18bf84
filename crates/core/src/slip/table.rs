//! The lines of a list as they stand on a page: below the labels of its columns, each cell under its own.

use super::{Area, Label, PAGE_WIDTH, Read, Run, Sheet, What, same_line, tokens};
use crate::field::{Field, FieldKind};

/// How far a cell may stand aside of its column's label.
const ASIDE: i32 = PAGE_WIDTH / 8;
/// How many heights of a line the next one may stand below.
const APART: i32 = 3;

/// What was read of a line: cell by cell.
pub(super) type Line<'k> = Vec<(&'k Field, Read)>;

/// A cell of a line: its column by place among the labels, and its words.
type Cell = (usize, Vec<usize>);

impl Sheet<'_> {
    /// The lines of a list with these columns, page by page; what they and their head take is told for.
    pub(super) fn lines<'k>(&mut self, columns: &[&'k Field], boxes: &[Field]) -> Vec<Line<'k>> {
        let pages = self.words.last().map_or(0, |(page, _, _)| page + 1);
        (0..pages).flat_map(|page| self.lines_of_page(columns, boxes, page)).collect()
    }

    fn lines_of_page<'k>(&mut self, columns: &[&'k Field], boxes: &[Field], page: usize) -> Vec<Line<'k>> {
        let head = self.head(columns, boxes, page);
        let labels: Vec<Label<'k>> = head
            .iter()
            .map(|(field, words)| Label { what: What::Box(field), page, at: self.area(words) })
            .collect();
        self.used.extend(head.into_iter().flat_map(|(_, words)| words));
        let lines = self.below_head(&labels);
        self.used.extend(lines.iter().flatten().flat_map(|(_, words)| words.iter().copied()));
        let read = |line: Vec<Cell>| {
            let cell = |(label, words): Cell| match labels[label].what {
                What::Box(field) => Some((field, self.read(&words))),
                What::Title => None,
            };
            line.into_iter().filter_map(cell).collect()
        };
        lines.into_iter().map(read).collect()
    }

    /// The labels that stand side by side, at least two, one of which is more than text and one that no box has as well: of all such the
    /// most.
    fn head<'k>(&self, columns: &[&'k Field], boxes: &[Field], page: usize) -> Vec<(&'k Field, Vec<usize>)> {
        let places = |field: &Field| -> Vec<Vec<usize>> {
            let (number, label) = (tokens(field.number), tokens(field.label));
            let with_number = self.places([number, label.clone()].concat(), page);
            if with_number.is_empty() { self.places(label, page) } else { with_number }
        };
        let all: Vec<(&Field, Vec<Vec<usize>>)> =
            columns.iter().map(|&field| (field, places(field))).collect();
        let anchors = all.iter().flat_map(|(_, places)| places);
        let beside = |anchor: &Vec<usize>| -> Vec<(&'k Field, Vec<usize>)> {
            let at = self.area(anchor);
            let mut taken: Vec<(&'k Field, Vec<usize>)> = Vec::new();
            for (field, places) in &all {
                let free = |words: &&Vec<usize>| {
                    let apart = taken.iter().all(|(_, other)| words.iter().all(|word| !other.contains(word)));
                    apart && (self.area(words).top - at.top).abs() <= at.height.max(self.area(words).height)
                };
                taken.extend(places.iter().find(free).map(|words| (*field, words.clone())));
            }
            taken
        };
        let is_text = |field: &Field| matches!(field.kind, FieldKind::Text { .. });
        let of_box = |field: &Field| boxes.iter().any(|of| tokens(of.label) == tokens(field.label));
        let bands = anchors.map(beside).filter(|band| {
            band.len() > 1
                && band.iter().any(|(field, _)| !is_text(field))
                && band.iter().any(|(field, _)| !of_box(field))
        });
        // Of several the first.
        bands.reduce(|best, band| if band.len() > best.len() { band } else { best }).unwrap_or_default()
    }

    /// All places on a page where these words stand one after the other.
    fn places(&self, wanted: Vec<String>, page: usize) -> Vec<Vec<usize>> {
        let runs = self.runs.iter().filter(|run| run.page == page);
        let starts = runs.flat_map(|run| run.words.iter().map(move |at| (run, *at)));
        let first = wanted.first();
        starts
            .filter(|(_, at)| first == Some(&self.words[*at].2) && !self.used.contains(at))
            .filter_map(|(run, at)| self.follow(run, at, &wanted))
            // More words beside it are another label's.
            .filter(|words| self.is_whole(words))
            .collect()
    }

    /// Whether words begin and end where runs do.
    fn is_whole(&self, words: &[usize]) -> bool {
        let ends = |at: Option<&usize>, end: fn(&[usize]) -> Option<&usize>| {
            self.runs.iter().any(|run| end(&run.words) == at)
        };
        ends(words.first(), <[usize]>::first) && ends(words.last(), <[usize]>::last)
    }

    /// The lines below a head, until one does not fit or stands too far below.
    fn below_head(&self, labels: &[Label<'_>]) -> Vec<Vec<Cell>> {
        let Some(head) = labels.iter().map(|label| label.at).reduce(Area::with) else { return Vec::new() };
        let page = labels[0].page;
        let below = |run: &&Run| {
            let at = self.area(&run.words);
            run.page == page && at.middle() > head.bottom()
        };
        let runs: Vec<&Run> = self.runs.iter().filter(below).collect();
        let mut above = head;
        let mut lines: Vec<Vec<Cell>> = Vec::new();
        for line in runs.chunk_by(|one, next| same_line(self.area(&one.words), self.area(&next.words))) {
            let at = line.iter().map(|run| self.area(&run.words)).reduce(Area::with).unwrap_or(above);
            let cells = self.cells(line, labels).filter(|_| at.top - above.bottom() <= APART * at.height);
            let Some(cells) = cells else { break };
            let is_text = |(label, _): &Cell| labels[*label].what.is_text();
            match lines.last_mut() {
                // Words that go on in the next line.
                Some(last) if cells.iter().all(is_text) => {
                    for (label, words) in cells {
                        match last.iter_mut().find(|(of, _)| *of == label) {
                            Some((_, before)) => before.extend(words),
                            None => last.push((label, words)),
                        }
                    }
                }
                _ => lines.push(cells),
            }
            above = at;
        }
        lines
    }

    /// The cells of a line, each under the label that it stands below; nothing where the line is none of the list.
    fn cells(&self, line: &[&Run], labels: &[Label<'_>]) -> Option<Vec<Cell>> {
        let first = line.first().and_then(|run| run.words.first());
        let is_sum = first.is_some_and(|at| matches!(self.words[*at].2.as_str(), "total" | "totals" | "sum"));
        let mut cells: Vec<Cell> = Vec::new();
        for run in line.iter().filter(|_| !is_sum) {
            let at = self.area(&run.words);
            let (label, _) = labels
                .iter()
                .enumerate()
                .map(|(place, label)| (place, aside(label.at, at)))
                .filter(|(_, aside)| *aside < ASIDE)
                .min_by_key(|(_, aside)| *aside)?;
            match cells.iter_mut().find(|(of, _)| *of == label) {
                Some((_, words)) => words.extend(&run.words),
                None => cells.push((label, run.words.clone())),
            }
        }
        let suits = |(label, words): &Cell| labels[*label].what.suits(&self.read(words).words);
        (!cells.is_empty() && cells.iter().all(suits)).then_some(cells)
    }
}

impl What<'_> {
    fn is_text(self) -> bool {
        matches!(self, What::Title)
            || matches!(self, What::Box(field) if matches!(field.kind, FieldKind::Text { .. }))
    }
}

/// How far words stand beside a label's width; less than nothing where they stand below it, by how much of it they cover.
fn aside(label: Area, words: Area) -> i32 {
    label.left.max(words.left) - label.right().min(words.right())
}
