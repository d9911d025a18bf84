//! The second factor: codes of an authenticator by the clock (RFC 6238), each once, and codes for who lost the device.

use super::sessions::digest;
use crate::{
    App,
    error::{Answer, Problem},
    seal::key_of_text,
    store::second as store,
};
use time::OffsetDateTime;
use totp_rs::{Builder, Secret, Totp};
use uuid::Uuid;

/// So many codes there are for who lost the device.
const RECOVERY: usize = 10;
/// Their letters: none that is read for another.
const LETTERS: &[u8] = b"abcdefghjkmnpqrstuvwxyz23456789";
const LONGEST: usize = 40;

/// What someone puts into an authenticator.
pub struct Begun {
    /// The secret as it is typed.
    pub secret: String,
    /// A picture of it, PNG in Base64.
    pub picture: String,
}

/// Where a secret is sealed for.
pub fn place(user: Uuid) -> String {
    format!("second/{user}")
}

fn authenticator(secret: Secret, login: &str) -> Answer<Totp> {
    // A colon parts the names there.
    let name = login.replace(':', " ");
    let built = Builder::new().with_secret(secret).with_issuer(Some("Hembo")).with_account_name(name).build();
    built.map_err(Problem::internal)
}

async fn kept(app: &App, user: Uuid, login: &str) -> Answer<Option<(Totp, store::Second)>> {
    let Some(second) = store::of(&app.database, user).await? else { return Ok(None) };
    let secret = app.sealer.open_text(&place(user), &second.secret).map_err(Problem::internal)?;
    let secret = Secret::try_from_base32(secret).map_err(Problem::internal)?;
    Ok(Some((authenticator(secret, login)?, second)))
}

/// Makes a secret for someone, not asked for until a code of it was typed.
///
/// # Errors
/// Where one is asked for already.
pub async fn begin(app: &App, user: Uuid, login: &str) -> Answer<Begun> {
    let secret = Secret::generate();
    let typed = secret.to_base32();
    let sealed = app.sealer.seal_text(&place(user), &typed);
    if !store::begin(&app.database, user, &sealed, key_of_text(&sealed)).await? {
        return Err(Problem::cannot_move("A second factor is asked for already: end it first.".into()));
    }
    let picture = authenticator(secret, login)?.to_qr_base64().map_err(Problem::internal)?;
    Ok(Begun { secret: typed, picture })
}

/// Asks for it from now on, once its code fits; the codes for who loses the device come back, for this one time.
///
/// # Errors
/// Where the database fails. Nothing where the code does not fit.
pub async fn confirm(
    app: &App,
    user: Uuid,
    login: &str,
    code: &str,
    session: &str,
) -> Answer<Option<Vec<String>>> {
    let Some((authenticator, second)) = kept(app, user, login).await? else { return Ok(None) };
    if second.asked || !fits(app, user, &authenticator, code).await? {
        return Ok(None);
    }
    let codes: Vec<String> = (0..RECOVERY).map(|_| recovery_code()).collect();
    let hashes: Vec<String> = codes.iter().map(|code| digest(&plain(code))).collect();
    store::ask(&app.database, user, &hashes, session).await?;
    Ok(Some(codes))
}

/// How a sign-in stands by its second factor.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Stands {
    /// None is asked for, or it fits.
    Fits,
    /// It is asked for, and nothing was typed.
    Asked,
    /// It does not fit.
    Wrong,
}

/// Whether someone may sign in by what was typed.
///
/// # Errors
/// Where the database fails.
pub async fn stands(app: &App, user: Uuid, login: &str, typed: Option<&str>) -> Answer<Stands> {
    let asked = kept(app, user, login).await?.filter(|(_, second)| second.asked);
    let Some((authenticator, _)) = asked else { return Ok(Stands::Fits) };
    let Some(typed) = typed.map(str::trim).filter(|typed| !typed.is_empty()) else {
        return Ok(Stands::Asked);
    };
    let right = typed.len() <= LONGEST
        && (fits(app, user, &authenticator, typed).await?
            || store::use_recovery(&app.database, user, &digest(&plain(typed))).await?);
    Ok(if right { Stands::Fits } else { Stands::Wrong })
}

/// Whether a code is one of now that was not used yet.
async fn fits(app: &App, user: Uuid, authenticator: &Totp, code: &str) -> Answer<bool> {
    let code: String = code.chars().filter(|c| !c.is_whitespace()).collect();
    let now = u64::try_from(OffsetDateTime::now_utc().unix_timestamp()).unwrap_or_default();
    let Some(step) = authenticator.check(&code, now) else { return Ok(false) };
    Ok(store::use_step(&app.database, user, i64::try_from(step).unwrap_or(i64::MAX)).await?)
}

/// A code for who lost the device, such as `k7mp-2xqa-w9dc`.
fn recovery_code() -> String {
    let bytes = *Uuid::new_v4().as_bytes();
    // The bytes of a v4 that are random throughout.
    let random = bytes[..6].iter().chain(&bytes[9..15]);
    let letters: Vec<u8> = random.map(|byte| LETTERS[usize::from(*byte) % LETTERS.len()]).collect();
    let parts: Vec<String> =
        letters.chunks(4).map(|part| String::from_utf8_lossy(part).into_owned()).collect();
    parts.join("-")
}

/// As it is compared: small letters and digits alone.
fn plain(code: &str) -> String {
    code.chars().filter(char::is_ascii_alphanumeric).map(|c| c.to_ascii_lowercase()).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn recovery_codes_are_read_back_however_they_are_written() {
        let code = recovery_code();
        assert_eq!((code.len(), code.matches('-').count()), (14, 2), "{code}");
        assert_eq!(plain(&code.to_uppercase().replace('-', " ")), plain(&code));
        assert_ne!(recovery_code(), code);
    }
}
