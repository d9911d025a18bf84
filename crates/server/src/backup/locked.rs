//! The key in a backup: sealed with another key that argon2id makes from a passphrase.

use super::wrong;
use crate::{auth::password, seal::Sealer};
use argon2::Argon2;
use std::io;

const SALT: usize = 16;
/// The place that the key is sealed for.
const PLACE: &str = "key of a backup";

/// Locks a key under a passphrase: the salt, then the sealed key.
pub fn lock(key: &[u8], passphrase: &str) -> io::Result<Vec<u8>> {
    if let Some(why) = password::fault(passphrase, "") {
        return Err(wrong(format!("The passphrase: {why}")));
    }
    let salt = *uuid::Uuid::new_v4().as_bytes();
    Ok([&salt[..], &made(passphrase, &salt)?.seal_bytes(PLACE, key)].concat())
}

/// Unlocks a key.
pub fn unlock(locked: &[u8], passphrase: &str) -> io::Result<Vec<u8>> {
    let (salt, sealed) =
        locked.split_at_checked(SALT).ok_or_else(|| wrong("The key in the backup is damaged."))?;
    let opened = made(passphrase, salt)?.open_bytes(PLACE, sealed);
    opened.map_err(|_| wrong("This is not the passphrase of the key in the backup. Nothing was changed."))
}

fn made(passphrase: &str, salt: &[u8]) -> io::Result<Sealer> {
    let mut key = [0; 32];
    let made = Argon2::default().hash_password_into(passphrase.as_bytes(), salt, &mut key);
    made.map_err(|error| wrong(error.to_string()))?;
    Ok(Sealer::of(key))
}
