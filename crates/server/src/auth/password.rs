//! Passwords: argon2id with the library's own parameters and salt.

use argon2::{Argon2, PasswordHasher, PasswordVerifier, password_hash::phc::PasswordHash};
use std::sync::LazyLock;

/// A hash that no password fits, so that an unknown name takes as long as a wrong password.
static NOBODY: LazyLock<String> = LazyLock::new(|| hash(&uuid::Uuid::new_v4().to_string()));

/// So many characters a password has at least.
pub const SHORTEST: usize = 12;
/// So many at most: hashing takes longer with each.
const LONGEST: usize = 200;

/// The commonest passwords of that length, in small letters.
const COMMON: &str = include_str!("common_passwords.txt");

/// Why a password is refused, if it is: for its length, or because it is among the first that are tried.
pub fn fault(password: &str, login: &str) -> Option<String> {
    let length = password.chars().count();
    let small = password.to_lowercase();
    let distinct = small.chars().collect::<std::collections::BTreeSet<_>>().len();
    if length < SHORTEST {
        Some(format!("A password has {SHORTEST} characters at least: a few words do."))
    } else if length > LONGEST {
        Some(format!("A password has {LONGEST} characters at most."))
    } else if COMMON.lines().any(|common| common == small) || distinct < 4 {
        Some("This password is among the first that are tried: choose another.".into())
    } else if !login.is_empty() && small.replace(login, "").chars().count() < 6 {
        Some("A password is not the sign-in name: choose another.".into())
    } else {
        None
    }
}

/// The hash of a password.
pub fn hash(password: &str) -> String {
    let hashed = Argon2::default().hash_password(password.as_bytes());
    hashed.expect("argon2 hashes any password of ordinary length").to_string()
}

/// Whether a password fits a hash; without a hash it never does, but takes as long.
pub fn verify(password: &str, hash: Option<&str>) -> bool {
    let fits = |hash: &str| {
        let parsed = PasswordHash::new(hash);
        parsed.is_ok_and(|h| Argon2::default().verify_password(password.as_bytes(), &h).is_ok())
    };
    match hash {
        Some(hash) => fits(hash),
        None => {
            fits(&NOBODY);
            false
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn short_common_and_repeated_passwords_are_refused() {
        for (password, login) in [
            ("eleven char", ""),
            ("Password1234", ""),
            ("aaaaaaaaaaaaaa", ""),
            ("wrenmarsh1234", "wrenmarsh"),
            (&"long".repeat(51), ""),
        ] {
            assert!(fault(password, login).is_some(), "{password}");
        }
        for password in ["quiet harbour", "twelve chars", "ein Wort und noch eins"] {
            assert_eq!(fault(password, "wren"), None, "{password}");
        }
    }

    #[test]
    fn only_the_right_password_fits() {
        let hashed = hash("quiet harbour");
        assert!(hashed.starts_with("$argon2id$"));
        assert!(verify("quiet harbour", Some(&hashed)));
        for (password, hash) in
            [("Quiet harbour", Some(hashed.as_str())), ("", Some("")), ("quiet harbour", None)]
        {
            assert!(!verify(password, hash), "{password:?}");
        }
    }
}
