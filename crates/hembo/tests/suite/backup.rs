//! A practice backed up, restored elsewhere and opened there; and what is refused, with nothing changed.

use hembo_cluster::Cluster;
use hembo_server::{Settings, demo};
use hembo_testing::laws::EVERY_LAW;
use sqlx::PgPool;
use std::{collections::BTreeMap, fs, os::unix::fs::PermissionsExt, path::PathBuf, process::Command};

const PASSPHRASE: &str = "lanterns over the weir";

/// What the program says, and whether it succeeds.
fn hembo(words: &[&str], passphrase: &str) -> (bool, String, Vec<u8>) {
    let mut program = Command::new(env!("CARGO_BIN_EXE_hembo"));
    let output = program.args(words).env("HEMBO_PASSPHRASE", passphrase).output().unwrap();
    (output.status.success(), String::from_utf8_lossy(&output.stderr).into_owned(), output.stdout)
}

/// Every household with its numbers open, as they are written to files, by the files' names.
fn opened(database: &str, key: &str, folder: &str) -> BTreeMap<String, String> {
    let (done, told, _) = hembo(&["export", folder, "--database", database, "--key", key], "");
    assert!(done, "{told}");
    let mut all = BTreeMap::new();
    for law in fs::read_dir(folder).unwrap() {
        for year in fs::read_dir(law.unwrap().path()).unwrap() {
            for file in fs::read_dir(year.unwrap().path()).unwrap() {
                let file = file.unwrap();
                all.insert(file.file_name().into_string().unwrap(), fs::read_to_string(file.path()).unwrap());
            }
        }
    }
    all
}

#[tokio::test]
async fn a_practice_is_backed_up_and_restored() {
    let folder = std::env::temp_dir().join(format!("hembo-backup-test-{}", std::process::id()));
    fs::create_dir_all(&folder).unwrap();
    let at = |name: &str| folder.join(name).display().to_string();
    let database = Cluster::test_database("backed_up").unwrap();
    let app =
        hembo_server::app(&Settings::of(&database, &folder.join("key")), EVERY_LAW.clone()).await.unwrap();
    let demo = PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("../../demo/us");
    demo::load(&app, &demo).await.unwrap();
    let before = opened(&database, &at("key"), &at("files"));
    let (done, told, _) = hembo(&["export", &at("files"), "--database", &database, "--key", &at("key")], "");
    assert!(!done && told.contains("not empty"), "{told}");
    assert!(before.len() > 5 && before.values().any(|one| one.contains("831-26-3358")));

    let (one, key_file) = (at("one"), at("key"));
    let backup = ["backup", &one, "--database", &database];
    let with_key = [&backup[..], &["--key", &key_file]].concat();
    let (done, told, _) = hembo(&with_key, "short");
    assert!(!done && told.contains("12 characters") && !folder.join("one").exists(), "{told}");
    let (done, told, _) = hembo(&with_key, PASSPHRASE);
    assert!(done && told.contains("restoring it for a check") && told.contains("people 3"), "{told}");
    let written = fs::read(at("one")).unwrap();
    assert_eq!(fs::metadata(at("one")).unwrap().permissions().mode() & 0o777, 0o600);
    let key = fs::read(at("key")).unwrap();
    assert!(!written.windows(key.len()).any(|part| part == key), "the key is locked");
    let (done, told, _) = hembo(&backup, PASSPHRASE);
    assert!(!done && told.contains("there already"), "{told}");
    assert_eq!(fs::read_dir(&folder).unwrap().count(), 3, "nothing half made is left");

    // Elsewhere: refused first, with nothing changed, then restored and opened.
    let empty = Cluster::test_database("restored").unwrap();
    let restore = |from: &str, key: &str, passphrase: &str| {
        hembo(&["restore", from, "--database", &empty, "--key", key], passphrase)
    };
    let (done, told, _) = restore(&at("one"), &at("key2"), "another passphrase");
    assert!(!done && told.contains("not the passphrase") && !folder.join("key2").exists(), "{told}");
    fs::write(at("key3"), [7; 32]).unwrap();
    let (done, told, _) = restore(&at("one"), &at("key3"), PASSPHRASE);
    assert!(!done && told.contains("is another key"), "{told}");
    let mut damaged = written.clone();
    let middle = damaged.len() / 2;
    damaged[middle] ^= 1;
    fs::write(at("damaged"), damaged).unwrap();
    fs::write(at("none"), "no backup").unwrap();
    for file in ["damaged", "none", "nowhere"] {
        let (done, told, _) = restore(&at(file), &at("key2"), PASSPHRASE);
        assert!(!done && told.contains(file), "{told}");
    }
    let (done, told, _) = restore(&at("one"), &at("key2"), PASSPHRASE);
    assert!(done && told.contains("opens its numbers"), "{told}");
    assert_eq!(fs::read(at("key2")).unwrap(), key);
    hembo_server::app(&Settings::of(&empty, &folder.join("key2")), EVERY_LAW.clone()).await.unwrap();
    assert_eq!(opened(&empty, &at("key2"), &at("files2")), before);
    let (done, told, _) = restore(&at("one"), &at("key2"), PASSPHRASE);
    assert!(!done && told.contains("not empty"), "{told}");
    let people = |database: &str| hembo(&["user", "list", "--database", database], "").2;
    assert_eq!(people(&empty), people(&database));

    // Through a pipe and without the key: it is told that the key is needed.
    let (done, _, bytes) = hembo(&["backup", "-", "--database", &database], "");
    assert!(done);
    fs::write(at("piped"), bytes).unwrap();
    let third = Cluster::test_database("piped").unwrap();
    let (done, told, _) = hembo(&["restore", &at("piped"), "--database", &third, "--key", &at("key4")], "");
    assert!(done && told.contains("need the practice's key") && !folder.join("key4").exists(), "{told}");
    fs::remove_dir_all(folder).unwrap();
}

/// The tables and seals of the version before keys had names (migration 23).
const EARLIER: &str = "
    update revisions set state = replace(state::text, 'sealed:' || (select name from keys), 'sealed:')::jsonb;
    alter table practice add column key_check text;
    update practice set key_check = (select replace(known, 'sealed:' || name, 'sealed:') from keys);
    alter table revisions drop column sealed_with;
    alter table filings drop column sealed_with;
    alter table files drop column sealed_with;
    alter table file_pages drop column sealed_with;
    alter table users drop column second_sealed_with;
    drop table keys;
    drop function audit_keys();
    delete from _sqlx_migrations where version = 23";

#[tokio::test]
async fn a_backup_of_an_earlier_version_is_restored() {
    let folder = std::env::temp_dir().join(format!("hembo-earlier-test-{}", std::process::id()));
    fs::create_dir_all(&folder).unwrap();
    let at = |name: &str| folder.join(name).display().to_string();
    let database = Cluster::test_database("earlier").unwrap();
    let key = folder.join("key");
    let app = hembo_server::app(&Settings::of(&database, &key), EVERY_LAW.clone()).await.unwrap();
    let demo = PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("../../demo/nz");
    demo::load(&app, &demo).await.unwrap();
    let before = opened(&database, &at("key"), &at("files"));
    let pool = PgPool::connect(&database).await.unwrap();
    sqlx::raw_sql(EARLIER).execute(&pool).await.unwrap();

    let (done, told, _) = hembo(&["backup", &at("one"), "--database", &database], "");
    assert!(done, "{told}");
    let empty = Cluster::test_database("earlier_restored").unwrap();
    let (done, told, _) = hembo(&["restore", &at("one"), "--database", &empty, "--key", &at("key")], "");
    assert!(done && told.contains("opens its numbers"), "{told}");
    hembo_server::app(&Settings::of(&empty, &key), EVERY_LAW.clone()).await.unwrap();
    assert_eq!(opened(&empty, &at("key"), &at("files2")), before);
    fs::remove_dir_all(folder).unwrap();
}
