//! Passwords: argon2id with the library's own parameters and salt.

use argon2::{Argon2, PasswordHasher, PasswordVerifier, password_hash::phc::PasswordHash};
use std::sync::LazyLock;

/// A hash that no password fits, so that an unknown name takes as long as a wrong password.
static NOBODY: LazyLock<String> = LazyLock::new(|| hash(&uuid::Uuid::new_v4().to_string()));

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
