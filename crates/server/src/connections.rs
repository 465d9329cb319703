//! Connections: taken in, counted by address, and closed when nothing comes.

use std::collections::HashMap;
use std::net::IpAddr;
use std::sync::{Arc, Mutex, PoisonError};
use std::time::Duration;

use axum::Router;
use hyper::server::conn::http1::Builder;
use hyper_util::rt::{TokioIo, TokioTimer};
use hyper_util::server::graceful::GracefulShutdown;
use hyper_util::service::TowerToHyperService;
use tokio::net::TcpListener;

/// The most connections from one address: a browser opens six.
const MOST_FROM_ONE: usize = 256;
/// How long a connection may be silent, or take to send the head of a request.
const SILENCE: Duration = Duration::from_secs(30);
/// How long requests under way may take once the server is told to stop.
const LAST_ANSWERS: Duration = Duration::from_secs(3);

/// How many connections each address holds.
#[derive(Clone, Default)]
struct Held(Arc<Mutex<HashMap<IpAddr, usize>>>);

/// One of them; given back when it is dropped.
struct Hold {
    held: Held,
    address: IpAddr,
}

impl Held {
    fn counts(&self) -> std::sync::MutexGuard<'_, HashMap<IpAddr, usize>> {
        self.0.lock().unwrap_or_else(PoisonError::into_inner)
    }

    /// One more from `address`; `None` when it has enough.
    fn take(&self, address: IpAddr) -> Option<Hold> {
        let mut counts = self.counts();
        let count = counts.entry(address).or_default();
        if *count >= MOST_FROM_ONE {
            return None;
        }
        *count += 1;
        Some(Hold {
            held: self.clone(),
            address,
        })
    }
}

impl Drop for Hold {
    fn drop(&mut self) {
        let mut counts = self.held.counts();
        if let Some(count) = counts.get_mut(&self.address) {
            *count -= 1;
            if *count == 0 {
                counts.remove(&self.address);
            }
        }
    }
}

/// Serves `router` on `listener` until `told_to_stop`, and for a short while after that what was
/// asked before.
pub async fn serve(listener: TcpListener, router: Router, told_to_stop: impl Future<Output = ()>) {
    let held = Held::default();
    let under_way = GracefulShutdown::new();
    let service = TowerToHyperService::new(router);
    tokio::pin!(told_to_stop);
    loop {
        let (stream, peer) = tokio::select! {
            () = &mut told_to_stop => break,
            accepted = listener.accept() => match accepted {
                Ok(accepted) => accepted,
                Err(error) => {
                    // Out of file handles, say: others must close theirs first.
                    tracing::warn!("no connection can be taken in: {error}");
                    tokio::time::sleep(Duration::from_millis(50)).await;
                    continue;
                }
            },
        };
        let Some(hold) = held.take(peer.ip()) else {
            tracing::warn!(
                "{} holds {MOST_FROM_ONE} connections: one more was closed",
                peer.ip()
            );
            continue;
        };
        let _ = stream.set_nodelay(true);
        let connection = Builder::new()
            .timer(TokioTimer::new())
            .header_read_timeout(SILENCE)
            .max_buf_size(64 << 10)
            .serve_connection(TokioIo::new(stream), service.clone());
        let connection = under_way.watch(connection);
        tokio::spawn(async move {
            // A connection that breaks off harms nobody.
            let _ = connection.await;
            drop(hold);
        });
    }
    drop(listener);
    let _ = tokio::time::timeout(LAST_ANSWERS, under_way.shutdown()).await;
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn an_address_holds_so_many_and_gets_them_back() {
        let held = Held::default();
        let address = IpAddr::from([127, 0, 0, 1]);
        let holds: Vec<_> = (0..MOST_FROM_ONE).map(|_| held.take(address)).collect();
        assert!(holds.iter().all(Option::is_some));
        assert!(held.take(address).is_none());
        assert!(held.take(IpAddr::from([10, 0, 0, 1])).is_some());
        drop(holds);
        assert!(held.take(address).is_some());
        assert!(held.counts().is_empty());
    }
}
