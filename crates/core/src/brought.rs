//! What papers bring to a person: lists of amounts with their boxes, each of a kind that a provision declares. A new paper
//! brings its kinds along; nobody has a list of all of them.

use crate::trail::Item;
use std::{
    any::Any,
    fmt,
    marker::PhantomData,
    sync::{
        OnceLock,
        atomic::{AtomicUsize, Ordering},
    },
};

/// A kind of what papers bring, such as wages: a static of the provision or paper that declares it.
pub struct Brought<T = Item> {
    /// Given when it is first used: to read a kind is to index, not to look up.
    place: OnceLock<usize>,
    of: PhantomData<fn() -> T>,
}

static NEXT: AtomicUsize = AtomicUsize::new(0);

impl<T> Brought<T> {
    /// A kind of its own.
    #[allow(clippy::new_without_default)]
    pub const fn new() -> Brought<T> {
        Brought { place: OnceLock::new(), of: PhantomData }
    }

    fn place(&'static self) -> usize {
        *self.place.get_or_init(|| NEXT.fetch_add(1, Ordering::Relaxed))
    }
}

/// All that papers bring to one person.
#[derive(Default)]
pub struct Records {
    lists: Vec<Option<Box<dyn Any + Send + Sync>>>,
}

impl Records {
    /// What is there of a kind, in the order of the papers.
    pub fn of<T: Any>(&self, kind: &'static Brought<T>) -> &[T] {
        let list = self.lists.get(kind.place()).and_then(Option::as_ref);
        list.and_then(|list| list.downcast_ref::<Vec<T>>()).map_or(&[], Vec::as_slice)
    }

    /// The same, to be completed once all papers are read.
    pub fn of_mut<T: Any>(&mut self, kind: &'static Brought<T>) -> &mut [T] {
        let list = self.lists.get_mut(kind.place()).and_then(Option::as_mut);
        list.and_then(|list| list.downcast_mut::<Vec<T>>()).map_or(&mut [], Vec::as_mut_slice)
    }

    /// Adds to a kind.
    pub fn add<T: Any + Send + Sync>(&mut self, kind: &'static Brought<T>, one: T) {
        let place = kind.place();
        if self.lists.len() <= place {
            self.lists.resize_with(place + 1, || None);
        }
        let list = self.lists[place].get_or_insert_with(|| Box::new(Vec::<T>::new()));
        if let Some(list) = list.downcast_mut::<Vec<T>>() {
            list.push(one);
        }
    }

    /// Whether there is anything of a kind.
    pub fn has<T: Any>(&self, kind: &'static Brought<T>) -> bool {
        !self.of(kind).is_empty()
    }
}

impl fmt::Debug for Records {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.debug_struct("Records").field("kinds", &self.lists.iter().flatten().count()).finish()
    }
}

impl<T> fmt::Debug for Brought<T> {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.debug_struct("Brought").finish_non_exhaustive()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    static SHELLS: Brought<u8> = Brought::new();
    static PEARLS: Brought<&str> = Brought::new();

    #[test]
    fn kinds_are_kept_apart_and_in_order() {
        let mut records = Records::default();
        assert!(records.of(&SHELLS).is_empty() && !records.has(&PEARLS));
        records.add(&PEARLS, "grey");
        records.add(&SHELLS, 3);
        records.add(&SHELLS, 1);
        assert_eq!((records.of(&SHELLS), records.of(&PEARLS)), (&[3, 1][..], &["grey"][..]));
    }
}
