//! Identification numbers are sealed before they reach the database: XChaCha20-Poly1305, bound to the household and
//! the person, so that a sealed number is of no use in another place.

use base64::{Engine, engine::general_purpose::STANDARD_NO_PAD};
use chacha20poly1305::{
    Key, KeyInit, XChaCha20Poly1305, XNonce,
    aead::{Aead, Generate, Payload},
};
use hembo_core::Household;
use std::{fmt, fs, io, os::unix::fs::OpenOptionsExt, path::Path};
use uuid::Uuid;

const MARK: &str = "sealed:";
const NONCE: usize = 24;

/// The practice's key.
#[derive(Clone)]
pub struct Sealer(XChaCha20Poly1305);

/// A sealed number that cannot be opened: another key, or another place.
#[derive(Debug, thiserror::Error)]
#[error("a sealed number cannot be opened with this key at this place")]
pub struct Unsealable;

impl fmt::Debug for Sealer {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str("Sealer(…)")
    }
}

impl Sealer {
    /// The key in a file of 32 bytes, made once with rights for its owner only.
    ///
    /// # Errors
    /// A file that cannot be read or made, or is not 32 bytes long.
    pub fn from_file(path: &Path) -> io::Result<Sealer> {
        if !path.exists() {
            if let Some(folder) = path.parent() {
                fs::create_dir_all(folder)?;
            }
            let mut file = fs::OpenOptions::new().write(true).create_new(true).mode(0o600).open(path)?;
            io::Write::write_all(&mut file, &Key::generate())?;
            file.sync_all()?;
        }
        let bytes = fs::read(path)?;
        let key = Key::try_from(bytes.as_slice());
        let key =
            key.map_err(|_| io::Error::other(format!("{} is not a key of 32 bytes", path.display())))?;
        Ok(Sealer(XChaCha20Poly1305::new(&key)))
    }

    /// Seals every number of a household that is not sealed yet.
    pub fn seal(&self, id: Uuid, household: &mut Household) {
        for person in &mut household.people {
            let place = place(id, &person.id);
            person.id_number = person.id_number.take().map(|number| self.seal_one(&place, &number));
        }
    }

    /// Opens every number of a household.
    ///
    /// # Errors
    /// A number that was sealed with another key or at another place.
    pub fn open(&self, id: Uuid, household: &mut Household) -> Result<(), Unsealable> {
        for person in &mut household.people {
            let place = place(id, &person.id);
            person.id_number =
                person.id_number.take().map(|sealed| self.open_one(&place, &sealed)).transpose()?;
        }
        Ok(())
    }

    fn seal_one(&self, place: &str, number: &str) -> String {
        let nonce = XNonce::generate();
        let payload = Payload { msg: number.as_bytes(), aad: place.as_bytes() };
        let sealed = self.0.encrypt(&nonce, payload).expect("a short text can always be encrypted");
        format!("{MARK}{}", STANDARD_NO_PAD.encode([nonce.as_slice(), &sealed].concat()))
    }

    fn open_one(&self, place: &str, sealed: &str) -> Result<String, Unsealable> {
        let bytes =
            STANDARD_NO_PAD.decode(sealed.strip_prefix(MARK).ok_or(Unsealable)?).map_err(|_| Unsealable)?;
        let (nonce, text) = bytes.split_at_checked(NONCE).ok_or(Unsealable)?;
        let nonce = XNonce::try_from(nonce).map_err(|_| Unsealable)?;
        let open = self.0.decrypt(&nonce, Payload { msg: text, aad: place.as_bytes() });
        String::from_utf8(open.map_err(|_| Unsealable)?).map_err(|_| Unsealable)
    }
}

fn place(household: Uuid, person: &str) -> String {
    format!("{household}/{person}")
}

/// A number with all but its last four digits hidden.
pub fn mask(number: &str) -> String {
    let digits = number.chars().filter(char::is_ascii_alphanumeric).count();
    let mut seen = 0;
    let hide = |c: char| {
        seen += usize::from(c.is_ascii_alphanumeric());
        if c.is_ascii_alphanumeric() && seen + 4 <= digits { '•' } else { c }
    };
    number.chars().map(hide).collect()
}

/// The household with every number hidden, as it goes to the screen.
pub fn masked(mut household: Household) -> Household {
    for person in &mut household.people {
        person.id_number = person.id_number.as_deref().map(mask);
    }
    household
}

#[cfg(test)]
mod tests {
    use super::*;

    fn sealer() -> Sealer {
        let file = std::env::temp_dir().join(format!("hembo-key-{}", Uuid::new_v4()));
        let sealer = Sealer::from_file(&file).unwrap();
        fs::remove_file(file).unwrap();
        sealer
    }

    #[test]
    fn a_sealed_number_opens_only_at_its_place_and_with_its_key() {
        let (sealer, place) = (sealer(), "household/ada");
        let sealed = sealer.seal_one(place, "811-34-2207");
        assert!(!sealed.contains("2207"));
        assert_ne!(sealed, sealer.seal_one(place, "811-34-2207"), "a nonce is never used twice");
        assert_eq!(sealer.open_one(place, &sealed).unwrap(), "811-34-2207");
        assert!(sealer.open_one("household/bo", &sealed).is_err());
        assert!(super::tests::sealer().open_one(place, &sealed).is_err());
        assert!(sealer.open_one(place, "811-34-2207").is_err());
    }

    #[test]
    fn a_mask_leaves_four_digits() {
        assert_eq!(mask("811-34-2207"), "•••-••-2207");
        assert_eq!(mask("811342207"), "•••••2207");
    }
}
