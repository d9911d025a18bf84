//! The world outside: tax authorities and payers, behind one trait, so that a real service could stand where the stand-in
//! does.

use async_trait::async_trait;
use hembo_authority::wire::{
    AskAssessment, AskConsent, Consent, Filing, No, OwnAssessment, Receipt, Scan, SendDocument, Slip,
};
use reqwest::{Client, RequestBuilder, StatusCode};
use serde::de::DeserializeOwned;
use std::{fmt, time::Duration};

/// How long an answer is waited for.
const LONGEST_WAIT: Duration = Duration::from_secs(8);
/// The largest answer that is read, in bytes.
const LARGEST_ANSWER: usize = 4 * 1024 * 1024;

/// Why nothing came of asking.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
pub enum Trouble {
    /// Nobody is there.
    #[error("The authority's service does not answer. Nothing was changed; try again in a moment.")]
    Unreachable,
    /// The answer takes too long.
    #[error("The authority's service takes too long. Nothing was changed here; try again in a moment.")]
    Slow,
    /// It says that it has an outage.
    #[error("The authority's service has an outage. Nothing was changed; try again later.")]
    Outage,
    /// What came is no answer.
    #[error(
        "The authority's service answered something that cannot be read. Nothing was changed; try again later."
    )]
    Nonsense,
    /// It says no, and why.
    #[error("{0}")]
    Refused(String),
}

/// What is asked outside.
#[async_trait]
pub trait Outside: Send + Sync + fmt::Debug {
    /// Asks a family for its consent.
    async fn ask_consent(&self, asked: &AskConsent) -> Result<Consent, Trouble>;
    /// How a consent stands.
    async fn consent(&self, number: &str) -> Result<Consent, Trouble>;
    /// Ends a consent.
    async fn end_consent(&self, number: &str) -> Result<Consent, Trouble>;
    /// What is held for a year.
    async fn slips(&self, consent: &str, year: i32) -> Result<Vec<Slip>, Trouble>;
    /// What the authority assesses by itself, of what it holds.
    async fn own_assessments(
        &self,
        consent: &str,
        asked: &AskAssessment,
    ) -> Result<Vec<OwnAssessment>, Trouble>;
    /// The words on a picture, as a scanner reads them.
    async fn scan(&self, picture: &[u8]) -> Result<Scan, Trouble>;
    /// Files a return; the same one again is filed once.
    async fn file(&self, filing: &Filing) -> Result<Receipt, Trouble>;
    /// What became of a return.
    async fn filed(&self, receipt: &str) -> Result<Receipt, Trouble>;
    /// Sends a document that was asked for.
    async fn send_document(&self, receipt: &str, sent: &SendDocument) -> Result<Receipt, Trouble>;
}

/// A service over HTTP with JSON.
#[derive(Debug)]
pub struct Http {
    client: Client,
    address: String,
}

impl Http {
    /// The service at an address, such as `http://127.0.0.1:4311`.
    ///
    /// # Errors
    /// When no client can be made.
    pub fn at(address: &str) -> Result<Http, reqwest::Error> {
        let client = Client::builder().timeout(LONGEST_WAIT).no_proxy().build()?;
        Ok(Http { client, address: address.trim_end_matches('/').to_owned() })
    }

    async fn ask<T: DeserializeOwned>(&self, request: RequestBuilder) -> Result<T, Trouble> {
        let mut answer = request.send().await.map_err(|error| trouble(&error))?;
        let status = answer.status();
        let mut body = Vec::new();
        while let Some(more) = answer.chunk().await.map_err(|error| trouble(&error))? {
            body.extend_from_slice(&more);
            if body.len() > LARGEST_ANSWER {
                return Err(Trouble::Nonsense);
            }
        }
        if status.is_success() {
            return serde_json::from_slice(&body).map_err(|_| Trouble::Nonsense);
        }
        if status == StatusCode::SERVICE_UNAVAILABLE {
            return Err(Trouble::Outage);
        }
        let no: No = serde_json::from_slice(&body).map_err(|_| Trouble::Nonsense)?;
        Err(Trouble::Refused(no.why))
    }

    fn to(&self, path: &[&str]) -> String {
        format!("{}/{}", self.address, path.join("/"))
    }
}

fn trouble(error: &reqwest::Error) -> Trouble {
    if error.is_timeout() { Trouble::Slow } else { Trouble::Unreachable }
}

#[async_trait]
impl Outside for Http {
    async fn ask_consent(&self, asked: &AskConsent) -> Result<Consent, Trouble> {
        self.ask(self.client.post(self.to(&["consents"])).json(asked)).await
    }

    async fn consent(&self, number: &str) -> Result<Consent, Trouble> {
        self.ask(self.client.get(self.to(&["consents", number]))).await
    }

    async fn end_consent(&self, number: &str) -> Result<Consent, Trouble> {
        self.ask(self.client.delete(self.to(&["consents", number]))).await
    }

    async fn slips(&self, consent: &str, year: i32) -> Result<Vec<Slip>, Trouble> {
        let path = self.to(&["consents", consent, "slips"]);
        self.ask(self.client.get(format!("{path}?year={year}"))).await
    }

    async fn own_assessments(
        &self,
        consent: &str,
        asked: &AskAssessment,
    ) -> Result<Vec<OwnAssessment>, Trouble> {
        self.ask(self.client.post(self.to(&["consents", consent, "assessments"])).json(asked)).await
    }

    async fn scan(&self, picture: &[u8]) -> Result<Scan, Trouble> {
        self.ask(self.client.post(self.to(&["scans"])).body(picture.to_vec())).await
    }

    async fn file(&self, filing: &Filing) -> Result<Receipt, Trouble> {
        self.ask(self.client.post(self.to(&["returns"])).json(filing)).await
    }

    async fn filed(&self, receipt: &str) -> Result<Receipt, Trouble> {
        self.ask(self.client.get(self.to(&["returns", receipt]))).await
    }

    async fn send_document(&self, receipt: &str, sent: &SendDocument) -> Result<Receipt, Trouble> {
        self.ask(self.client.post(self.to(&["returns", receipt, "documents"])).json(sent)).await
    }
}
