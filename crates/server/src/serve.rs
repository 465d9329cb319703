//! The server: opens the store, listens, and stops cleanly.

use std::io::IsTerminal;
use std::net::SocketAddr;
use std::path::Path;
use std::time::Duration;

use anyhow::{Context, Result};
use jiff::Timestamp;
use sunrise_store::Store;
use tokio::net::TcpListener;
use tracing_subscriber::EnvFilter;

use crate::api;

/// Serves plans kept in `data` on `listen` until it is told to stop.
///
/// # Errors
/// When the folder, the database or the address cannot be used.
pub fn run(data: &Path, listen: SocketAddr, demo: bool) -> Result<()> {
    let filter = EnvFilter::try_from_default_env()
        .unwrap_or_else(|_| EnvFilter::new("info,tower_http=warn"));
    tracing_subscriber::fmt()
        .with_env_filter(filter)
        .with_target(false)
        // Colours are for people at a terminal, not for files.
        .with_ansi(std::io::stderr().is_terminal() && std::env::var_os("NO_COLOR").is_none())
        .with_writer(std::io::stderr)
        .init();
    std::fs::create_dir_all(data).with_context(|| format!("{} cannot be made", data.display()))?;
    let mut store = Store::open(&data.join("plans.db"))
        .with_context(|| format!("the plans in {} cannot be opened", data.display()))?;
    if demo && store.plans()?.is_empty() {
        let plan = api::demo_plan()
            .check()
            .expect("the demo plan is without fault");
        store.create(&plan, "began with the Kettle Fen demo", Timestamp::now())?;
    }
    tokio::runtime::Runtime::new()?.block_on(listen_until_told(store, data, listen))
}

async fn listen_until_told(store: Store, data: &Path, listen: SocketAddr) -> Result<()> {
    let listener = TcpListener::bind(listen).await.with_context(|| {
        format!("cannot listen on {listen}: is another instance running there? --listen takes another address")
    })?;
    let address = listener.local_addr()?;
    tracing::info!("plans are kept in {}", data.display());
    tracing::info!("open http://{address}/ in a browser; Ctrl+C stops");
    if !address.ip().is_loopback() {
        tracing::warn!("anyone who reaches {address} can read and change the plans");
    }
    let stopping = std::sync::Arc::new(tokio::sync::Notify::new());
    let told = stopping.clone();
    let server = axum::serve(listener, api::router(store)).with_graceful_shutdown(async move {
        told_to_stop().await;
        tracing::info!("stopping");
        told.notify_one();
    });
    tokio::select! {
        result = server => result?,
        // Requests under way may finish, but nobody holds the server up for long.
        () = async { stopping.notified().await; tokio::time::sleep(Duration::from_secs(5)).await } => {}
    }
    Ok(())
}

async fn told_to_stop() {
    let interrupt = async {
        // Without a handler the default one ends the process, which is as good.
        let _ = tokio::signal::ctrl_c().await;
    };
    #[cfg(unix)]
    let terminate = async {
        use tokio::signal::unix::{SignalKind, signal};
        match signal(SignalKind::terminate()) {
            Ok(mut signal) => {
                signal.recv().await;
            }
            Err(_) => std::future::pending().await,
        }
    };
    #[cfg(not(unix))]
    let terminate = std::future::pending::<()>();
    tokio::select! {
        () = interrupt => {}
        () = terminate => {}
    }
}
