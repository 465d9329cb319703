//! The real binary, running on a free port with its own data folder.

// Each test file uses its own part of this.
#![allow(dead_code)]

use std::io::{BufRead, BufReader, Read, Write};
use std::net::{SocketAddr, TcpStream};
use std::path::Path;
use std::process::{Child, Command, Stdio};

use serde_json::Value;

pub struct Server {
    process: Child,
    address: SocketAddr,
}

/// An answer: its status, content type and body.
#[derive(Debug)]
pub struct Answer {
    pub status: u16,
    pub kind: String,
    pub body: String,
}

/// A server with a data folder of its own, and the demo in it.
pub fn server() -> (tempfile::TempDir, Server) {
    let data = tempfile::tempdir().unwrap();
    let server = Server::start(data.path());
    (data, server)
}

/// The demo as the server writes it, with every number in full.
pub fn demo() -> Value {
    let plan: sunrise_core::plan::Plan =
        serde_json::from_str(include_str!("../../../../demo/kettle-fen.json")).unwrap();
    serde_json::to_value(plan).unwrap()
}

impl Answer {
    pub fn json(&self) -> Value {
        serde_json::from_str(&self.body).unwrap_or_else(|e| panic!("{e}: {self:?}"))
    }
}

impl Server {
    /// Starts it with time to spare: many tests share this machine, and none is about time.
    pub fn start(data: &Path) -> Self {
        Self::start_with(data, &["--longest", "20"])
    }

    /// Starts it with further arguments to `serve`.
    pub fn start_with(data: &Path, more: &[&str]) -> Self {
        let mut process = Command::new(env!("CARGO_BIN_EXE_faint-sunrise"))
            .args(["serve", "--demo", "--listen", "127.0.0.1:0", "--data"])
            .arg(data)
            .args(more)
            .env("NO_COLOR", "1")
            .stderr(Stdio::piped())
            .spawn()
            .unwrap();
        let mut log = BufReader::new(process.stderr.take().unwrap());
        let mut seen = String::new();
        let address = loop {
            let start = seen.len();
            assert!(log.read_line(&mut seen).unwrap() > 0, "it ended: {seen}");
            if let Some((_, rest)) = seen[start..].split_once("http://") {
                break rest.split('/').next().unwrap().parse().unwrap();
            }
        };
        // Keep reading, or the server would block on a full pipe.
        std::thread::spawn(move || std::io::copy(&mut log, &mut std::io::sink()));
        Self { process, address }
    }

    /// Sends a request with a raw body; `None` when the server went away before answering.
    pub fn try_send(&self, method: &str, path: &str, kind: &str, body: &[u8]) -> Option<Answer> {
        let mut stream = TcpStream::connect(self.address).ok()?;
        let head = format!(
            "{method} {path} HTTP/1.1\r\nHost: localhost\r\nConnection: close\r\n\
             Content-Type: {kind}\r\nContent-Length: {}\r\n\r\n",
            body.len()
        );
        stream.write_all(head.as_bytes()).ok()?;
        stream.write_all(body).ok()?;
        let mut reader = BufReader::new(stream);
        let mut status = String::new();
        reader.read_line(&mut status).ok()?;
        let status = status.split(' ').nth(1)?.parse().ok()?;
        let (mut kind, mut length) = (String::new(), None);
        loop {
            let mut line = String::new();
            reader.read_line(&mut line).ok()?;
            let Some((name, value)) = line.trim_end().split_once(": ") else {
                break;
            };
            match name.to_ascii_lowercase().as_str() {
                "content-type" => kind = value.into(),
                "content-length" => length = value.parse::<usize>().ok(),
                _ => {}
            }
        }
        let mut body = String::new();
        reader.read_to_string(&mut body).ok()?;
        // An answer that broke off is none.
        (length.is_none_or(|n| n == body.len())).then_some(Answer { status, kind, body })
    }

    pub fn send(&self, method: &str, path: &str, body: &str) -> Answer {
        self.try_send(method, path, "application/json", body.as_bytes())
            .expect("the server answers")
    }

    pub fn get(&self, path: &str) -> Answer {
        self.send("GET", path, "")
    }

    /// SIGKILL: no handler runs, nothing is flushed.
    pub fn kill(&mut self) {
        self.process.kill().unwrap();
        self.process.wait().unwrap();
    }

    pub fn address(&self) -> SocketAddr {
        self.address
    }

    pub fn id(&self) -> u32 {
        self.process.id()
    }

    pub fn wait(&mut self) -> std::process::ExitStatus {
        self.process.wait().unwrap()
    }
}

impl Drop for Server {
    fn drop(&mut self) {
        let _ = self.process.kill();
        let _ = self.process.wait();
    }
}
