//! Changes of one household take turns within a server, so that none is computed in vain. That none is lost when
//! several servers share a database is the store's affair ([`crate::store::households::advance`]).

use std::{
    collections::HashMap,
    sync::{Arc, Mutex, PoisonError},
};
use tokio::sync::OwnedMutexGuard;
use uuid::Uuid;

/// A turn, over when it is dropped.
pub type Turn = OwnedMutexGuard<()>;

/// Whose turn it is, household by household.
#[derive(Debug, Clone, Default)]
pub struct Turns(Arc<Mutex<HashMap<Uuid, Arc<tokio::sync::Mutex<()>>>>>);

impl Turns {
    /// Waits for the turn of a change of this household.
    pub async fn take(&self, household: Uuid) -> Turn {
        let queue = {
            let mut queues = self.0.lock().unwrap_or_else(PoisonError::into_inner);
            queues.retain(|_, queue| Arc::strong_count(queue) > 1);
            Arc::clone(queues.entry(household).or_default())
        };
        queue.lock_owned().await
    }
}
