//! The server: opens the store, listens, and stops cleanly.

use std::io::IsTerminal;
use std::net::SocketAddr;
use std::path::Path;
use std::time::Duration;

use anyhow::{Context, Result};
use jiff::Timestamp;
use sunrise_store::Store;
use tokio::net::TcpListener;
use tracing_subscriber::Layer;
use tracing_subscriber::filter::{LevelFilter, Targets};
use tracing_subscriber::layer::SubscriberExt;
use tracing_subscriber::util::SubscriberInitExt;

use crate::photos::Photos;
use crate::{api, connections};

/// Serves plans kept in `data` on `listen` until it is told to stop.
///
/// # Errors
/// When the folder, the database or the address cannot be used.
pub fn run(data: &Path, listen: SocketAddr, demo: bool, longest: Duration) -> Result<()> {
    let filter = std::env::var("RUST_LOG").ok();
    let filter = filter.and_then(|filter| filter.parse::<Targets>().ok());
    let filter = filter.unwrap_or_else(|| {
        Targets::new()
            .with_default(LevelFilter::INFO)
            .with_target("tower_http", LevelFilter::WARN)
    });
    let lines = tracing_subscriber::fmt::layer()
        .with_target(false)
        // Colours are for people at a terminal, not for files.
        .with_ansi(std::io::stderr().is_terminal() && std::env::var_os("NO_COLOR").is_none())
        .with_writer(std::io::stderr);
    tracing_subscriber::registry()
        .with(lines.with_filter(filter))
        .init();
    std::fs::create_dir_all(data).with_context(|| format!("{} cannot be made", data.display()))?;
    let mut store = Store::open_or_set_aside(&data.join("plans.db"), Timestamp::now())
        .with_context(|| format!("the plans in {} cannot be opened", data.display()))?;
    if let Some(aside) = store.set_aside() {
        tracing::error!(
            "the database was damaged and is now {}: an empty one was begun",
            aside.display()
        );
    }
    match store.tidy(Timestamp::now()) {
        Ok(0) => {}
        Ok(gone) => tracing::info!("{gone} old revisions were thinned out"),
        Err(error) => tracing::warn!("old revisions could not be thinned out: {error}"),
    }
    let photos = Photos::in_folder(data);
    let kept: Vec<i64> = (store.plans()?.iter())
        .chain(&store.deleted_plans()?)
        .map(|plan| plan.id)
        .collect();
    if let Err(error) = photos.keep_only(&kept) {
        tracing::warn!("photos of plans that are gone stay for now: {error}");
    }
    if demo && store.plans()?.is_empty() {
        api::begun_with_demo(&mut store, Timestamp::now())?;
    }
    let runtime = tokio::runtime::Runtime::new()?;
    let outcome = runtime.block_on(listen_until_told(store, photos, data, listen, longest));
    // What is still being computed is for nobody any more.
    runtime.shutdown_timeout(LAST_WRITES);
    outcome
}

/// How long a save under way may take once the server has stopped answering.
const LAST_WRITES: Duration = Duration::from_secs(1);

async fn listen_until_told(
    store: Store,
    photos: Photos,
    data: &Path,
    listen: SocketAddr,
    longest: Duration,
) -> Result<()> {
    let listener = TcpListener::bind(listen).await.with_context(|| {
        format!("cannot listen on {listen}: is another instance running there? --listen takes another address")
    })?;
    let address = listener.local_addr()?;
    tracing::info!("plans are kept in {}", data.display());
    tracing::info!("open http://{address}/ in a browser; Ctrl+C stops");
    if !address.ip().is_loopback() {
        tracing::warn!("anyone who reaches {address} can read and change the plans");
    }
    // Before the first answer: whoever got one may tell it to stop.
    let told = told_to_stop();
    connections::serve(listener, api::router(store, photos, longest), async {
        told.await;
        tracing::info!("stopping");
    })
    .await;
    Ok(())
}

/// Listens for the signals from now on; the future ends with the first.
fn told_to_stop() -> impl Future<Output = ()> {
    #[cfg(unix)]
    let terminate = {
        use tokio::signal::unix::{SignalKind, signal};
        let signal = signal(SignalKind::terminate());
        async {
            match signal {
                Ok(mut signal) => {
                    signal.recv().await;
                }
                Err(_) => std::future::pending().await,
            }
        }
    };
    #[cfg(not(unix))]
    let terminate = std::future::pending::<()>();
    async {
        let interrupt = async {
            // Without a handler the default one ends the process, which is as good.
            let _ = tokio::signal::ctrl_c().await;
        };
        tokio::select! {
            () = interrupt => {}
            () = terminate => {}
        }
    }
}
