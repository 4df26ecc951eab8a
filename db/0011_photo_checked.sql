-- The SHA-256 of the picture as it was written anew, so that bin/check can tell a damaged one. NULL: kept before this.
ALTER TABLE photo ADD COLUMN IF NOT EXISTS stored_sha256 BINARY(32) NULL;
