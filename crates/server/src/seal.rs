//! Secrets are sealed before they reach the database: XChaCha20-Poly1305, bound to the household and the place in it, so
//! that a sealed text is of no use in another place. Which texts are secrets, the packs declare.

use base64::{Engine, engine::general_purpose::STANDARD_NO_PAD};
use chacha20poly1305::{
    Key, KeyInit, XChaCha20Poly1305, XNonce,
    aead::{Aead, Generate, Payload},
};
use hembo_core::{Household, Pack, secret};
use hmac::{Hmac, Mac};
use sha2::{Digest, Sha256};
use std::{
    convert::Infallible,
    fmt, fs, io, iter,
    os::unix::fs::OpenOptionsExt,
    path::Path,
    sync::{Arc, PoisonError, RwLock},
};
use uuid::Uuid;

const MARK: &str = "sealed:";
const NONCE: usize = 24;
/// How many bytes of a hash are kept.
const HASH: usize = 12;

/// How many bytes of a hash name a key.
const NAME: usize = 9;
/// How many bytes a key has.
pub const KEY: usize = 32;

/// The practice's keys: what is sealed is sealed with the present one, and what any of them sealed is opened. Copies of it
/// share them.
#[derive(Clone)]
pub struct Sealer(Arc<RwLock<Arc<Ring>>>);

/// Keys, of which the present one seals.
struct Ring {
    keys: Vec<OneKey>,
    present: usize,
}

#[derive(Clone)]
struct OneKey {
    /// The beginning of a hash of it, which stands before all that it seals.
    name: [u8; NAME],
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

impl OneKey {
    fn of(key: [u8; KEY]) -> OneKey {
        let finder = Hmac::new_from_slice(&key).expect("a key of any length makes a hash");
        let name = Sha256::digest(key)[..NAME].try_into().expect("a hash is longer than a name");
        OneKey { name, cipher: XChaCha20Poly1305::new(&Key::from(key)), finder }
    }

    fn seal(&self, place: &str, bytes: &[u8]) -> Vec<u8> {
        let nonce = XNonce::generate();
        let payload = Payload { msg: bytes, aad: place.as_bytes() };
        let sealed = self.cipher.encrypt(&nonce, payload).expect("what fits into memory can be encrypted");
        [&self.name[..], nonce.as_slice(), &sealed].concat()
    }

    /// Opens what it sealed, the name before it taken off.
    fn open(&self, place: &str, sealed: &[u8]) -> Option<Vec<u8>> {
        let (nonce, bytes) = sealed.split_at_checked(NONCE)?;
        let payload = Payload { msg: bytes, aad: place.as_bytes() };
        self.cipher.decrypt(&XNonce::try_from(nonce).ok()?, payload).ok()
    }

    fn seal_text(&self, place: &str, text: &str) -> String {
        format!("{MARK}{}", STANDARD_NO_PAD.encode(self.seal(place, text.as_bytes())))
    }

    fn digits(&self, digits: &str) -> String {
        let hash = self.finder.clone().chain_update(b"digits:").chain_update(digits);
        STANDARD_NO_PAD.encode(&hash.finalize().into_bytes()[..HASH])
    }
}

impl Ring {
    fn present(&self) -> &OneKey {
        &self.keys[self.present]
    }

    fn open(&self, place: &str, sealed: &[u8]) -> Result<Vec<u8>, Unsealable> {
        let named = self.keys.iter().find(|key| sealed.starts_with(&key.name));
        if let Some(open) = named.and_then(|key| key.open(place, &sealed[NAME..])) {
            return Ok(open);
        }
        // Before keys had names, seals had none.
        self.keys.iter().find_map(|key| key.open(place, sealed)).ok_or(Unsealable)
    }

    fn open_text(&self, place: &str, sealed: &str) -> Result<String, Unsealable> {
        let sealed = sealed.strip_prefix(MARK).ok_or(Unsealable)?;
        let bytes = STANDARD_NO_PAD.decode(sealed).map_err(|_| Unsealable)?;
        String::from_utf8(self.open(place, &bytes)?).map_err(|_| Unsealable)
    }
}

impl Sealer {
    /// The keys in a file: 32 bytes each, the newest last. The newest is the present one.
    ///
    /// # Errors
    /// A file that cannot be read, or whose length is none of keys.
    pub fn from_file(path: &Path) -> io::Result<Sealer> {
        let bytes = fs::read(path)?;
        let (keys, rest) = bytes.as_chunks::<KEY>();
        if keys.is_empty() || !rest.is_empty() {
            let why = format!("{} does not hold keys of {KEY} bytes", path.display());
            return Err(io::Error::other(why));
        }
        let keys: Vec<OneKey> = keys.iter().copied().map(OneKey::of).collect();
        let present = keys.len() - 1;
        Ok(Sealer(Arc::new(RwLock::new(Arc::new(Ring { keys, present })))))
    }

    /// By a key at hand.
    pub fn of(key: [u8; KEY]) -> Sealer {
        Sealer(Arc::new(RwLock::new(Arc::new(Ring { keys: vec![OneKey::of(key)], present: 0 }))))
    }

    /// Makes a key in a new file, with rights for its owner only.
    ///
    /// # Errors
    /// A file that cannot be made.
    pub fn make(path: &Path) -> io::Result<Sealer> {
        Sealer::keep(path, &fresh())?;
        Sealer::from_file(path)
    }

    /// Keeps keys in a new file, with rights for its owner only.
    ///
    /// # Errors
    /// A file that is there already or cannot be made.
    pub fn keep(path: &Path, keys: &[u8]) -> io::Result<()> {
        if let Some(folder) = path.parent() {
            fs::create_dir_all(folder)?;
        }
        let mut file = fs::OpenOptions::new().write(true).create_new(true).mode(0o600).open(path)?;
        io::Write::write_all(&mut file, keys)?;
        file.sync_all()
    }

    fn ring(&self) -> Arc<Ring> {
        self.0.read().unwrap_or_else(PoisonError::into_inner).clone()
    }

    /// Takes the keys of another in all copies; the newest that a database knows becomes the present one.
    ///
    /// # Errors
    /// Where it has none of them: then nothing changes.
    pub fn take(&self, other: &Sealer, known: &[String]) -> Result<(), Unsealable> {
        let other = other.ring();
        let is_known = |key: &OneKey| known.contains(&told(&key.name));
        let present = other.keys.iter().rposition(is_known).ok_or(Unsealable)?;
        let keys = other.keys.clone();
        *self.0.write().unwrap_or_else(PoisonError::into_inner) = Arc::new(Ring { keys, present });
        Ok(())
    }

    /// The names of the keys, the newest last.
    pub fn names(&self) -> Vec<String> {
        self.ring().keys.iter().map(|key| told(&key.name)).collect()
    }

    /// Hashes of the last digits of a number by each key, the present one's first; nobody without a key can tell the digits.
    pub fn digits(&self, digits: &str) -> Vec<String> {
        let ring = self.ring();
        let others = (0..ring.keys.len()).filter(|&at| at != ring.present);
        iter::once(ring.present).chain(others).map(|at| ring.keys[at].digits(digits)).collect()
    }

    /// The known text, sealed with the present key, and the name of that.
    pub fn check(&self) -> (String, String) {
        let ring = self.ring();
        (told(&ring.present().name), ring.present().seal_text(KNOWN.0, KNOWN.1))
    }

    /// The name of the key that a known text was sealed with, where it is one of these.
    pub fn fits(&self, check: &str) -> Option<String> {
        let ring = self.ring();
        let fits = |key: &&OneKey| {
            let bytes = check.strip_prefix(MARK).and_then(|text| STANDARD_NO_PAD.decode(text).ok());
            let bytes = bytes.unwrap_or_default();
            let plain = bytes.strip_prefix(&key.name[..]).unwrap_or(&bytes);
            key.open(KNOWN.0, plain).is_some_and(|text| text == KNOWN.1.as_bytes())
        };
        ring.keys.iter().find(fits).map(|key| told(&key.name))
    }

    /// Seals every secret of a household; the name of the key.
    pub fn seal(&self, id: Uuid, household: &mut Household, pack: &dyn Pack) -> String {
        let ring = self.ring();
        let Ok(()) = secret::each(household, pack, |at, text| {
            *text = ring.present().seal_text(&place(id, at), text);
            Ok::<(), Infallible>(())
        });
        told(&ring.present().name)
    }

    /// Opens every secret of a household.
    ///
    /// # Errors
    /// A secret that was sealed with another key or at another place.
    pub fn open(&self, id: Uuid, household: &mut Household, pack: &dyn Pack) -> Result<(), Unsealable> {
        let ring = self.ring();
        secret::each(household, pack, |at, text| {
            *text = ring.open_text(&place(id, at), text)?;
            Ok(())
        })
    }

    /// Seals a text at a place.
    pub fn seal_text(&self, place: &str, text: &str) -> String {
        self.ring().present().seal_text(place, text)
    }

    /// Opens a text that was sealed at a place.
    ///
    /// # Errors
    /// A text that was sealed with another key or at another place.
    pub fn open_text(&self, place: &str, sealed: &str) -> Result<String, Unsealable> {
        self.ring().open_text(place, sealed)
    }

    /// Seals bytes at a place.
    pub fn seal_bytes(&self, place: &str, bytes: &[u8]) -> Vec<u8> {
        self.ring().present().seal(place, bytes)
    }

    /// Opens bytes that were sealed at a place.
    ///
    /// # Errors
    /// Bytes that were sealed with another key or at another place.
    pub fn open_bytes(&self, place: &str, sealed: &[u8]) -> Result<Vec<u8>, Unsealable> {
        self.ring().open(place, sealed)
    }
}

/// A new key.
pub fn fresh() -> [u8; KEY] {
    Key::generate().into()
}

/// The name of a key in letters: as it stands at the beginning of a sealed text.
fn told(name: &[u8]) -> String {
    STANDARD_NO_PAD.encode(name)
}

/// The name of the key that sealed a text.
pub fn key_of_text(sealed: &str) -> &str {
    let name = sealed.strip_prefix(MARK).and_then(|text| text.get(..NAME / 3 * 4));
    name.unwrap_or_default()
}

/// The name of the key that sealed bytes.
pub fn key_of_bytes(sealed: &[u8]) -> String {
    told(sealed.get(..NAME).unwrap_or_default())
}

/// Whether a text looks like a sealed one.
pub fn is_sealed(text: &str) -> bool {
    let bytes = text.strip_prefix(MARK).and_then(|text| STANDARD_NO_PAD.decode(text).ok());
    bytes.is_some_and(|bytes| bytes.len() > NONCE)
}

/// The place of a household's secret.
pub fn place(household: Uuid, at: &str) -> String {
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
        let sealed = sealer.seal_text(place, "811-34-2207");
        assert!(!sealed.contains("2207"));
        assert_ne!(sealed, sealer.seal_text(place, "811-34-2207"), "a nonce is never used twice");
        assert_eq!(sealer.open_text(place, &sealed).unwrap(), "811-34-2207");
        assert!(sealer.open_text("household/bo", &sealed).is_err());
        assert!(super::tests::sealer().open_text(place, &sealed).is_err());
        assert!(sealer.open_text(place, "811-34-2207").is_err());
        let (name, check) = sealer.check();
        assert_eq!(sealer.fits(&check), Some(name));
        assert_eq!(super::tests::sealer().fits(&check), None);
    }

    #[test]
    fn a_seal_names_its_key_and_opens_with_the_others_at_hand() {
        let file = std::env::temp_dir().join(format!("hembo-key-{}", Uuid::new_v4()));
        let (first, second) = (fresh(), fresh());
        let old = Sealer::of(first);
        let sealed = old.seal_bytes("here", b"Ada");
        fs::write(&file, [first, second].concat()).unwrap();
        let both = Sealer::from_file(&file).unwrap();
        assert_eq!(both.open_bytes("here", &sealed).unwrap(), b"Ada");
        assert_eq!(key_of_bytes(&sealed), both.names()[0]);
        assert_eq!(key_of_text(&both.seal_text("here", "Ada")), both.names()[1], "the newest seals");
        assert!(both.digits("2207").contains(&old.digits("2207")[0]));

        let unknown = Sealer::of(first);
        unknown.take(&both, &[both.names()[0].clone()]).unwrap();
        assert_eq!(
            key_of_text(&unknown.seal_text("here", "Ada")),
            both.names()[0],
            "the newest that is known seals"
        );
        assert!(unknown.take(&both, &["none of them".into()]).is_err());

        let unnamed = &sealed[NAME..];
        assert_eq!(both.open_bytes("here", unnamed).unwrap(), b"Ada", "sealed before keys had names");
        fs::write(&file, [0; KEY + 1]).unwrap();
        assert!(Sealer::from_file(&file).is_err());
        fs::remove_file(file).unwrap();
    }

    #[test]
    fn a_mask_leaves_four_digits() {
        assert_eq!(mask("811-34-2207"), "•••-••-2207");
        assert_eq!(mask("811342207"), "•••••2207");
        assert_eq!(mask("1234567"), "•••4567");
        assert_eq!(mask("123456"), "••••••");
    }
}
