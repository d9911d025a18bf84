//! The one file of a backup: a zip with what it holds (`backup.json`), the dump, and the key where it is in it.

use super::{store::Counts, wrong};
use serde::{Deserialize, Serialize};
use sha2::{Digest, Sha256};
use std::{
    fs::File,
    io::{self, BufReader, BufWriter, Read, Write},
    os::unix::fs::OpenOptionsExt,
    path::Path,
};
use time::OffsetDateTime;
use zip::{CompressionMethod, ZipArchive, ZipWriter, write::SimpleFileOptions};

const ABOUT: &str = "backup.json";
const DUMP: &str = "database.dump";
const KEY: &str = "key.locked";
/// The form of the file.
const FORM: u32 = 1;

/// What a backup holds.
#[derive(Debug, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Manifest {
    /// The form of the file.
    hembo_backup: u32,
    /// The version of the program that made it.
    version: String,
    #[serde(with = "time::serde::rfc3339")]
    made: OffsetDateTime,
    /// The last change of the tables that it has.
    schema: i64,
    /// How much stands in it.
    pub counts: Counts,
    /// The key is in it, under a passphrase.
    key: bool,
    /// The SHA-256 of the dump in hexadecimal digits.
    dump_sha256: String,
}

impl Manifest {
    /// Of a dump.
    pub fn of(
        dump: &Path,
        made: OffsetDateTime,
        schema: i64,
        counts: Counts,
        key: bool,
    ) -> io::Result<Manifest> {
        let version = env!("CARGO_PKG_VERSION").to_owned();
        let dump_sha256 = copied(&mut File::open(dump)?, &mut io::sink())?;
        Ok(Manifest { hembo_backup: FORM, version, made, schema, counts, key, dump_sha256 })
    }
}

/// Copies, and gives the SHA-256 of what was copied.
fn copied(from: &mut impl Read, to: &mut impl Write) -> io::Result<String> {
    let mut digest = Sha256::new();
    let mut part = vec![0; 1 << 16];
    loop {
        let read = from.read(&mut part)?;
        if read == 0 {
            return Ok(digest.finalize().iter().map(|byte| format!("{byte:02x}")).collect());
        }
        digest.update(&part[..read]);
        to.write_all(&part[..read])?;
    }
}

/// A new file that its owner alone may read.
pub fn owned(path: &Path) -> io::Result<File> {
    File::options().write(true).create_new(true).mode(0o600).open(path)
}

/// Writes the file, onto the disk.
pub fn write(to: &Path, manifest: &Manifest, dump: &Path, key: Option<&[u8]>) -> io::Result<()> {
    let mut zip = ZipWriter::new(BufWriter::new(owned(to)?));
    // A dump is compressed by itself.
    let plain = SimpleFileOptions::default().compression_method(CompressionMethod::Stored).large_file(true);
    zip.start_file(ABOUT, plain)?;
    zip.write_all(&serde_json::to_vec_pretty(manifest)?)?;
    if let Some(key) = key {
        zip.start_file(KEY, plain)?;
        zip.write_all(key)?;
    }
    zip.start_file(DUMP, plain)?;
    copied(&mut File::open(dump)?, &mut zip)?;
    let mut file = zip.finish()?;
    file.flush()?;
    file.get_ref().sync_all()
}

/// Reads the file: what it holds, its key, and the dump into another file.
pub fn read(from: &Path, dump: &Path) -> io::Result<(Manifest, Option<Vec<u8>>)> {
    let none = |why: String| wrong(format!("{} is no backup, or damaged: {why}", from.display()));
    let file = File::open(from).map_err(|error| wrong(format!("{}: {error}", from.display())))?;
    let mut zip = ZipArchive::new(BufReader::new(file)).map_err(|error| none(error.to_string()))?;
    let about = part(&mut zip, ABOUT).map_err(|error| none(error.to_string()))?;
    let manifest: Manifest = serde_json::from_slice(&about).map_err(|error| none(error.to_string()))?;
    if manifest.hembo_backup != FORM {
        return Err(none(format!("its form {} is not known to this version", manifest.hembo_backup)));
    }
    let key =
        manifest.key.then(|| part(&mut zip, KEY)).transpose().map_err(|error| none(error.to_string()))?;
    let mut packed = zip.by_name(DUMP).map_err(|error| none(error.to_string()))?;
    let digest = copied(&mut packed, &mut owned(dump)?).map_err(|error| none(error.to_string()))?;
    if digest != manifest.dump_sha256 {
        return Err(none("its dump is not what was written".into()));
    }
    Ok((manifest, key))
}

/// A small part of the file.
fn part(zip: &mut ZipArchive<BufReader<File>>, name: &str) -> io::Result<Vec<u8>> {
    let mut bytes = Vec::new();
    zip.by_name(name)?.take(1 << 20).read_to_end(&mut bytes)?;
    Ok(bytes)
}
