//! Photos beside the database: each read as a picture, turned upright, made no larger than a screen and
//! written anew, so that nothing of where and by what it was taken is left in it.

use std::io::Cursor;
use std::path::{Path, PathBuf};

use image::codecs::jpeg::JpegEncoder;
use image::{DynamicImage, ImageDecoder, ImageFormat, ImageReader, Limits};

/// The largest photo that is taken, in bytes.
pub const MOST_BYTES: usize = 16 << 20;
/// A photo is made so wide or high at the most, in pixels.
const MOST_PIXELS: u32 = 2048;
/// Wider or higher ones are none that a camera takes.
const MOST_SIDE: u32 = 16_384;
/// Memory that reading one may take, in bytes.
const MOST_MEMORY: u64 = 400 << 20;
/// As good as the eye can tell.
const QUALITY: u8 = 82;

/// The folder that photos are kept in.
#[derive(Debug)]
pub struct Photos(PathBuf);

/// Why a photo is not kept.
#[derive(Debug, thiserror::Error)]
pub enum NoPhoto {
    /// It is no picture that can be read.
    #[error("this is no picture that can be read: {0}")]
    NoPicture(String),
    /// The folder cannot be written to.
    #[error(transparent)]
    Disk(#[from] std::io::Error),
}

impl Photos {
    /// In `data`, the folder of the plans.
    pub fn in_folder(data: &Path) -> Self {
        Self(data.join("photos"))
    }

    fn file(&self, plan: i64, name: &str) -> PathBuf {
        self.0.join(plan.to_string()).join(format!("{name}.jpg"))
    }

    /// The photo of `plan` that is called `name`; `None` where there is none.
    ///
    /// # Errors
    /// When it is there and cannot be read.
    pub fn read(&self, plan: i64, name: &str) -> std::io::Result<Option<Vec<u8>>> {
        match std::fs::read(self.file(plan, name)) {
            Ok(bytes) => Ok(Some(bytes)),
            Err(error) if error.kind() == std::io::ErrorKind::NotFound => Ok(None),
            Err(error) => Err(error),
        }
    }

    /// Keeps `bytes` as the photo of `plan` called `name`, unless there is one of that name.
    ///
    /// # Errors
    /// That it is no picture, or that the disk refuses.
    pub fn keep(&self, plan: i64, name: &str, bytes: &[u8]) -> Result<(), NoPhoto> {
        let file = self.file(plan, name);
        let clean = cleaned(bytes)?;
        if file.exists() {
            return Ok(());
        }
        let folder = file.parent().unwrap_or(&self.0);
        std::fs::create_dir_all(folder)?;
        // Whole or not at all.
        let half = file.with_extension("part");
        std::fs::write(&half, clean)?;
        std::fs::rename(half, file)?;
        Ok(())
    }

    /// Takes the photos of plans that are gone for good.
    ///
    /// # Errors
    /// When the disk refuses.
    pub fn keep_only(&self, plans: &[i64]) -> std::io::Result<()> {
        let Ok(folders) = std::fs::read_dir(&self.0) else {
            return Ok(());
        };
        for folder in folders {
            let folder = folder?;
            let plan = folder.file_name().to_string_lossy().parse::<i64>();
            if plan.is_ok_and(|plan| !plans.contains(&plan)) {
                std::fs::remove_dir_all(folder.path())?;
            }
        }
        Ok(())
    }
}

/// The picture in `bytes`, upright and without what a camera adds, as JPEG.
fn cleaned(bytes: &[u8]) -> Result<Vec<u8>, NoPhoto> {
    let no_picture = |error: &dyn std::fmt::Display| NoPhoto::NoPicture(error.to_string());
    let mut reader = ImageReader::new(Cursor::new(bytes));
    reader = reader.with_guessed_format()?;
    let known = [ImageFormat::Jpeg, ImageFormat::Png, ImageFormat::WebP];
    if !reader
        .format()
        .is_some_and(|format| known.contains(&format))
    {
        return Err(NoPhoto::NoPicture("send JPEG, PNG or WebP".into()));
    }
    let mut limits = Limits::default();
    limits.max_image_width = Some(MOST_SIDE);
    limits.max_image_height = Some(MOST_SIDE);
    limits.max_alloc = Some(MOST_MEMORY);
    reader.limits(limits);
    let mut decoder = reader.into_decoder().map_err(|e| no_picture(&e))?;
    let upright = decoder.orientation().map_err(|e| no_picture(&e))?;
    let mut picture = DynamicImage::from_decoder(decoder).map_err(|e| no_picture(&e))?;
    picture.apply_orientation(upright);
    if picture.width().max(picture.height()) > MOST_PIXELS {
        picture = picture.thumbnail(MOST_PIXELS, MOST_PIXELS);
    }
    let mut clean = Vec::new();
    let encoder = JpegEncoder::new_with_quality(&mut clean, QUALITY);
    let written = picture.to_rgb8().write_with_encoder(encoder);
    written.map_err(|e| no_picture(&e))?;
    Ok(clean)
}

#[cfg(test)]
mod tests {
    use super::*;

    fn picture(width: u32, height: u32) -> Vec<u8> {
        let plain =
            image::RgbImage::from_fn(width, height, |x, y| image::Rgb([x as u8, y as u8, 90]));
        let mut bytes = Vec::new();
        let encoder = JpegEncoder::new_with_quality(&mut bytes, 90);
        plain.write_with_encoder(encoder).unwrap();
        bytes
    }

    /// `jpeg` with an EXIF block that turns it a quarter and tells where it was taken.
    fn with_exif(jpeg: &[u8]) -> Vec<u8> {
        let mut exif = b"Exif\0\0MM\0\x2a\0\0\0\x08\0\x02".to_vec();
        // Orientation: 6, turn a quarter clockwise.
        exif.extend(b"\x01\x12\0\x03\0\0\0\x01\0\x06\0\0");
        // Who made the camera, in place of a location: text that must not survive.
        exif.extend(b"\x01\x0f\0\x02\0\0\0\x14\0\0\0\x26\0\0\0\0");
        exif.extend(b"52.9 N 0.1 E secret\0");
        let mut bytes = jpeg[..2].to_vec();
        bytes.extend(b"\xff\xe1");
        bytes.extend(((exif.len() + 2) as u16).to_be_bytes());
        bytes.extend(exif);
        bytes.extend(&jpeg[2..]);
        bytes
    }

    #[test]
    fn where_it_was_taken_is_gone_and_it_stands_upright() {
        let taken = with_exif(&picture(60, 40));
        assert!(taken.windows(6).any(|w| w == b"secret"));
        let clean = cleaned(&taken).unwrap();
        assert!(!clean.windows(6).any(|w| w == b"secret"));
        assert!(!clean.windows(4).any(|w| w == b"Exif"));
        let read = image::load_from_memory(&clean).unwrap();
        assert_eq!((read.width(), read.height()), (40, 60));
    }

    #[test]
    fn a_large_one_is_made_smaller_and_what_is_none_is_refused() {
        let read = image::load_from_memory(&cleaned(&picture(3000, 1000)).unwrap()).unwrap();
        assert_eq!(read.width(), MOST_PIXELS);
        let cut = &picture(600, 400)[..400];
        for none in [&b"GIF89a"[..], b"not a picture at all", cut, b"%PDF-1.7"] {
            assert!(matches!(cleaned(none), Err(NoPhoto::NoPicture(_))));
        }
    }

    #[test]
    fn a_name_is_kept_once_and_goes_with_its_plan() {
        let folder = tempfile::tempdir().unwrap();
        let photos = Photos::in_folder(folder.path());
        photos.keep(1, "a", &picture(8, 8)).unwrap();
        let first = photos.read(1, "a").unwrap().unwrap();
        photos.keep(1, "a", &picture(16, 8)).unwrap();
        assert_eq!(photos.read(1, "a").unwrap().unwrap(), first);
        assert_eq!(photos.read(2, "a").unwrap(), None);
        photos.keep_only(&[2]).unwrap();
        assert_eq!(photos.read(1, "a").unwrap(), None);
    }
}
