using Microsoft.EntityFrameworkCore;

namespace MillCard.Store;

/// <summary>The database.</summary>
public sealed class MillCardContext(DbContextOptions<MillCardContext> options) : DbContext(options)
{
    /// <summary>Documents with their drafts.</summary>
    public DbSet<DocumentRow> Documents => Set<DocumentRow>();
    /// <summary>Fixed states.</summary>
    public DbSet<RevisionRow> Revisions => Set<RevisionRow>();
    /// <summary>Bytes by hash.</summary>
    public DbSet<BlobRow> Blobs => Set<BlobRow>();
    /// <summary>What was done once.</summary>
    public DbSet<DoneRow> Done => Set<DoneRow>();

    /// <inheritdoc/>
    protected override void OnModelCreating(ModelBuilder model)
    {
        model.Entity<DocumentRow>(document =>
        {
            document.ToTable("document", table =>
            {
                table.HasCheckConstraint("document_kind", "kind in ('card', 'filament', 'recipe', 'trial')");
                table.HasCheckConstraint("document_draft_is_object", "jsonb_typeof(draft) = 'object'");
            });
            document.HasKey(d => d.Id);
            document.Property(d => d.Id).HasColumnName("id");
            document.Property(d => d.Kind).HasColumnName("kind").HasMaxLength(20);
            document.Property(d => d.Name).HasColumnName("name").HasMaxLength(200);
            document.Property(d => d.Archived).HasColumnName("archived");
            document.Property(d => d.Draft).HasColumnName("draft").HasColumnType("jsonb");
            document.Property(d => d.Summary).HasColumnName("summary").HasColumnType("jsonb");
            document.Property(d => d.Saved).HasColumnName("saved");
            document.Property(d => d.Version).IsRowVersion();
            document.HasIndex(d => new { d.Kind, d.Name }).HasDatabaseName("document_kind_name");
            document.HasMany(d => d.Revisions).WithOne().HasForeignKey(r => r.DocumentId).OnDelete(DeleteBehavior.Cascade);
        });
        model.Entity<RevisionRow>(revision =>
        {
            revision.ToTable("revision");
            revision.HasKey(r => new { r.DocumentId, r.Letter });
            revision.Property(r => r.DocumentId).HasColumnName("document_id");
            revision.Property(r => r.Letter).HasColumnName("letter").HasMaxLength(4);
            revision.Property(r => r.Body).HasColumnName("body").HasColumnType("jsonb");
            revision.Property(r => r.Note).HasColumnName("note").HasMaxLength(1000);
            revision.Property(r => r.At).HasColumnName("at");
        });
        model.Entity<BlobRow>(blob =>
        {
            blob.ToTable("blob", table => table.HasCheckConstraint("blob_hash", "hash ~ '^[0-9a-f]{64}$'"));
            blob.HasKey(b => b.Hash);
            blob.Property(b => b.Hash).HasColumnName("hash").HasMaxLength(64);
            blob.Property(b => b.Bytes).HasColumnName("bytes");
            blob.Property(b => b.MediaType).HasColumnName("media_type").HasMaxLength(100);
            blob.Property(b => b.At).HasColumnName("at");
        });
        model.Entity<DoneRow>(done =>
        {
            done.ToTable("done");
            done.HasKey(d => d.Name);
            done.Property(d => d.Name).HasColumnName("name").HasMaxLength(100);
            done.Property(d => d.At).HasColumnName("at");
        });
    }
}
