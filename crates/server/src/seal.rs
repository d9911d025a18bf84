//! Secrets are sealed before they reach the database: XChaCha20-Poly1305, bound to the household and the place in it, so
//! that a sealed text is of no use in another place. Which texts are secrets, the packs declare.

use base64::{Engine, engine::general_purpose::STANDARD_NO_PAD};
use chacha20poly1305::{
    Key, KeyInit, XChaCha20Poly1305, XNonce,
    aead::{Aead, Generate, Payload},
};
use hembo_core::{Household, Pack, secret};
use hmac::{Hmac, Mac};
use sha2::Sha256;
use std::{convert::Infallible, fmt, fs, io, os::unix::fs::OpenOptionsExt, path::Path};
use uuid::Uuid;

const MARK: &str = "sealed:";
const NONCE: usize = 24;
/// How many bytes of a hash are kept.
const HASH: usize = 12;

/// The practice's key.
#[derive(Clone)]
pub struct Sealer {
    cipher: XChaCha20Poly1305,
    /// The key of the hashes by which last digits are found.
    finder: Hmac<Sha256>,
}

/// A sealed number that cannot be opened: another key, or another place.
#[derive(Debug, thiserror::Error)]
#[error("a sealed number cannot be opened with this key at this place")]
pub struct Unsealable;

impl fmt::Debug for Sealer {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str("Sealer(…)")
    }
}

/// The known text that tells a right key from a wrong one, and its place.
const KNOWN: (&str, &str) = ("practice", "hembo");

impl Sealer {
    /// The key in a file of 32 bytes.
    ///
    /// # Errors
    /// A file that cannot be read, or is not 32 bytes long.
    pub fn from_file(path: &Path) -> io::Result<Sealer> {
        let key = <[u8; 32]>::try_from(fs::read(path)?.as_slice());
        let key =
            key.map_err(|_| io::Error::other(format!("{} is not a key of 32 bytes", path.display())))?;
        Ok(Sealer::of(key))
    }

    /// By a key at hand.
    pub fn of(key: [u8; 32]) -> Sealer {
        let finder = Hmac::new_from_slice(&key).expect("a key of any length makes a hash");
        Sealer { cipher: XChaCha20Poly1305::new(&Key::from(key)), finder }
    }

    /// Makes a key in a new file, with rights for its owner only.
    ///
    /// # Errors
    /// A file that cannot be made.
    pub fn make(path: &Path) -> io::Result<Sealer> {
        Sealer::keep(path, &Key::generate())?;
        Sealer::from_file(path)
    }

    /// Keeps a key in a new file, with rights for its owner only.
    ///
    /// # Errors
    /// A file that is there already or cannot be made.
    pub fn keep(path: &Path, key: &[u8]) -> io::Result<()> {
        if let Some(folder) = path.parent() {
            fs::create_dir_all(folder)?;
        }
        let mut file = fs::OpenOptions::new().write(true).create_new(true).mode(0o600).open(path)?;
        io::Write::write_all(&mut file, key)?;
        file.sync_all()
    }

    /// A hash of the last digits of a number, of which nobody without the key can tell the digits.
    pub fn digits(&self, digits: &str) -> String {
        let hash = self.finder.clone().chain_update(b"digits:").chain_update(digits);
        STANDARD_NO_PAD.encode(&hash.finalize().into_bytes()[..HASH])
    }

    /// The known text, sealed with this key.
    pub fn check(&self) -> String {
        self.seal_one(KNOWN.0, KNOWN.1)
    }

    /// Whether this is the key that a known text was sealed with.
    pub fn fits(&self, check: &str) -> bool {
        self.open_one(KNOWN.0, check).is_ok_and(|text| text == KNOWN.1)
    }

    /// Seals every secret of a household.
    pub fn seal(&self, id: Uuid, household: &mut Household, pack: &dyn Pack) {
        let Ok(()) = secret::each(household, pack, |at, text| {
            *text = self.seal_one(&place(id, at), text);
            Ok::<(), Infallible>(())
        });
    }

    /// Opens every secret of a household.
    ///
    /// # Errors
    /// A secret that was sealed with another key or at another place.
    pub fn open(&self, id: Uuid, household: &mut Household, pack: &dyn Pack) -> Result<(), Unsealable> {
        secret::each(household, pack, |at, text| {
            *text = self.open_one(&place(id, at), text)?;
            Ok(())
        })
    }

    /// Seals a text at a place.
    pub fn seal_text(&self, place: &str, text: &str) -> String {
        self.seal_one(place, text)
    }

    /// Opens a text that was sealed at a place.
    ///
    /// # Errors
    /// A text that was sealed with another key or at another place.
    pub fn open_text(&self, place: &str, sealed: &str) -> Result<String, Unsealable> {
        self.open_one(place, sealed)
    }

    /// Seals bytes at a place.
    pub fn seal_bytes(&self, place: &str, bytes: &[u8]) -> Vec<u8> {
        let nonce = XNonce::generate();
        let payload = Payload { msg: bytes, aad: place.as_bytes() };
        let sealed = self.cipher.encrypt(&nonce, payload).expect("what fits into memory can be encrypted");
        [nonce.as_slice(), &sealed].concat()
    }

    /// Opens bytes that were sealed at a place.
    ///
    /// # Errors
    /// Bytes that were sealed with another key or at another place.
    pub fn open_bytes(&self, place: &str, sealed: &[u8]) -> Result<Vec<u8>, Unsealable> {
        let (nonce, bytes) = sealed.split_at_checked(NONCE).ok_or(Unsealable)?;
        let nonce = XNonce::try_from(nonce).map_err(|_| Unsealable)?;
        let open = self.cipher.decrypt(&nonce, Payload { msg: bytes, aad: place.as_bytes() });
        open.map_err(|_| Unsealable)
    }

    fn seal_one(&self, place: &str, number: &str) -> String {
        format!("{MARK}{}", STANDARD_NO_PAD.encode(self.seal_bytes(place, number.as_bytes())))
    }

    fn open_one(&self, place: &str, sealed: &str) -> Result<String, Unsealable> {
        let bytes =
            STANDARD_NO_PAD.decode(sealed.strip_prefix(MARK).ok_or(Unsealable)?).map_err(|_| Unsealable)?;
        String::from_utf8(self.open_bytes(place, &bytes)?).map_err(|_| Unsealable)
    }
}

fn place(household: Uuid, at: &str) -> String {
    format!("{household}/{at}")
}

/// What is no longer than this is hidden whole: four digits of a PIN would give it away.
const SHORT: usize = 6;

/// A number with all but its last four digits hidden, a PIN whole.
pub fn mask(number: &str) -> String {
    let digits = number.chars().filter(char::is_ascii_alphanumeric).count();
    let shown = if digits > SHORT { 4 } else { 0 };
    let mut seen = 0;
    let hide = |c: char| {
        seen += usize::from(c.is_ascii_alphanumeric());
        if c.is_ascii_alphanumeric() && seen + shown <= digits { '•' } else { c }
    };
    number.chars().map(hide).collect()
}

/// The household with every secret hidden, as it goes to the screen.
pub fn masked(mut household: Household, pack: &dyn Pack) -> Household {
    let Ok(()) = secret::each(&mut household, pack, |_, text| {
        *text = mask(text);
        Ok::<(), Infallible>(())
    });
    household
}

#[cfg(test)]
mod tests {
    use super::*;

    fn sealer() -> Sealer {
        let file = std::env::temp_dir().join(format!("hembo-key-{}", Uuid::new_v4()));
        let sealer = Sealer::make(&file).unwrap();
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
        assert!(sealer.fits(&sealer.check()) && !super::tests::sealer().fits(&sealer.check()));
    }

    #[test]
    fn a_mask_leaves_four_digits() {
        assert_eq!(mask("811-34-2207"), "•••-••-2207");
        assert_eq!(mask("811342207"), "•••••2207");
        assert_eq!(mask("1234567"), "•••4567");
        assert_eq!(mask("123456"), "••••••");
    }
}
