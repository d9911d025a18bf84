//! Stopping a search from outside, and how much work one may be.

use std::sync::{
    Arc,
    atomic::{AtomicBool, Ordering},
};

/// How many points of amounts one search reckons at the most; a household that needs more is told so. Counted in work,
/// not in time, so that it gives the same answer everywhere.
pub(super) const MOST_POINTS: u64 = 200_000;

/// A search that nobody waits for any more can be told to stop; every clone is the same.
#[derive(Debug, Clone, Default)]
pub struct Stop(Arc<AtomicBool>);

/// The search was stopped: there is no result, not half of one.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
#[error("the computation was stopped")]
pub struct Stopped;

impl Stop {
    /// Stops whatever watches this, within a part or two.
    pub fn stop(&self) {
        self.0.store(true, Ordering::Relaxed);
    }

    /// Whether it was stopped.
    pub fn is_stopped(&self) -> bool {
        self.0.load(Ordering::Relaxed)
    }

    /// What was found, unless it was found in a hurry.
    pub(super) fn unless_stopped<T>(&self, found: T) -> Result<T, Stopped> {
        if self.is_stopped() { Err(Stopped) } else { Ok(found) }
    }
}
