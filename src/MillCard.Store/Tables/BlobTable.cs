using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace MillCard.Store.Tables;

/// <summary>Files, as they stand in the database.</summary>
internal sealed class BlobTable : IEntityTypeConfiguration<BlobRow>
{
    public void Configure(EntityTypeBuilder<BlobRow> blob)
    {
        blob.ToTable("blob", t => t.HasCheckConstraint("blob_hash", "hash ~ '^[0-9a-f]{64}$'"));
        blob.HasKey(b => b.Hash);
        blob.Property(b => b.Hash).HasColumnName("hash");
        blob.Property(b => b.Bytes).HasColumnName("bytes");
        blob.Property(b => b.MediaType).HasColumnName("media_type");
        blob.Property(b => b.At).HasColumnName("at");
    }
}
