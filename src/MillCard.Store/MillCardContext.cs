using Microsoft.EntityFrameworkCore;

namespace MillCard.Store;

/// <summary>The database.</summary>
public sealed class MillCardContext(DbContextOptions<MillCardContext> options) : DbContext(options)
{
    /// <summary>Documents of all kinds.</summary>
    public DbSet<DocumentRow> Documents => Set<DocumentRow>();
    /// <summary>Meshes, programs and layers.</summary>
    public DbSet<BlobRow> Blobs => Set<BlobRow>();
    /// <summary>Last programs of trials.</summary>
    public DbSet<RunRow> Runs => Set<RunRow>();
    /// <summary>Fixed states of cards.</summary>
    public DbSet<RevisionRow> Revisions => Set<RevisionRow>();
    /// <summary>Stamps on revisions.</summary>
    public DbSet<ProofRow> Proofs => Set<ProofRow>();
    /// <summary>Real prints.</summary>
    public DbSet<PrintRow> Prints => Set<PrintRow>();
    /// <summary>Jobs that went to printers.</summary>
    public DbSet<JobRow> Jobs => Set<JobRow>();
    /// <summary>What was done once.</summary>
    public DbSet<DoneRow> Done => Set<DoneRow>();

    /// <inheritdoc/>
    protected override void OnModelCreating(ModelBuilder modelBuilder)
    {
        modelBuilder.Entity<DocumentRow>(document =>
        {
            document.ToTable("document", t =>
            {
                t.HasCheckConstraint("document_kind", "kind in ('card', 'filament', 'recipe', 'trial')");
                t.HasCheckConstraint("document_place", "place in ('shelf', 'archive', 'bin')");
                t.HasCheckConstraint("document_card", "(kind = 'trial') = (card_id is not null)");
            });
            document.HasKey(d => d.Id);
            document.Property(d => d.Id).HasColumnName("id").ValueGeneratedNever();
            document.Property(d => d.Kind).HasColumnName("kind");
            document.Property(d => d.Name).HasColumnName("name");
            document.Property(d => d.Draft).HasColumnName("draft").HasColumnType("jsonb");
            document.Property(d => d.Summary).HasColumnName("summary").HasColumnType("jsonb");
            document.Property(d => d.CardId).HasColumnName("card_id");
            document.Property(d => d.Place).HasColumnName("place")
                .HasConversion(p => p.ToString().ToLowerInvariant(), p => Enum.Parse<DocumentPlace>(p, true))
                .HasDefaultValue(DocumentPlace.Shelf).HasSentinel(DocumentPlace.Shelf);
            document.Property(d => d.CreatedAt).HasColumnName("created_at");
            document.Property(d => d.SavedAt).HasColumnName("saved_at");
            document.Property(d => d.Version).IsRowVersion();
            document.HasIndex(d => new { d.Kind, d.Place, d.Name });
            document.HasOne<DocumentRow>().WithMany().HasForeignKey(d => d.CardId).OnDelete(DeleteBehavior.Cascade);
        });
        modelBuilder.Entity<BlobRow>(blob =>
        {
            blob.ToTable("blob", t => t.HasCheckConstraint("blob_hash", "hash ~ '^[0-9a-f]{64}$'"));
            blob.HasKey(b => b.Hash);
            blob.Property(b => b.Hash).HasColumnName("hash");
            blob.Property(b => b.Bytes).HasColumnName("bytes");
            blob.Property(b => b.MediaType).HasColumnName("media_type");
            blob.Property(b => b.At).HasColumnName("at");
        });
        modelBuilder.Entity<RunRow>(run =>
        {
            run.ToTable("run");
            run.HasKey(r => r.TrialId);
            run.Property(r => r.TrialId).HasColumnName("trial_id").ValueGeneratedNever();
            run.Property(r => r.Program).HasColumnName("program");
            run.Property(r => r.Layers).HasColumnName("layers");
            run.Property(r => r.Card).HasColumnName("card").HasColumnType("jsonb");
            run.Property(r => r.Result).HasColumnName("result").HasColumnType("jsonb");
            run.Property(r => r.At).HasColumnName("at");
            run.HasOne<DocumentRow>().WithOne().HasForeignKey<RunRow>(r => r.TrialId).OnDelete(DeleteBehavior.Cascade);
            run.HasOne<BlobRow>().WithMany().HasForeignKey(r => r.Program).OnDelete(DeleteBehavior.Restrict);
            run.HasOne<BlobRow>().WithMany().HasForeignKey(r => r.Layers).OnDelete(DeleteBehavior.Restrict);
        });
        modelBuilder.Entity<RevisionRow>(revision =>
        {
            revision.ToTable("revision", t => t.HasCheckConstraint("revision_number", "number > 0"));
            revision.HasKey(r => new { r.DocumentId, r.Number });
            revision.Property(r => r.DocumentId).HasColumnName("document_id");
            revision.Property(r => r.Number).HasColumnName("number").ValueGeneratedNever();
            revision.Property(r => r.Document).HasColumnName("document").HasColumnType("jsonb");
            revision.Property(r => r.Note).HasColumnName("note");
            revision.Property(r => r.At).HasColumnName("at");
            revision.HasOne<DocumentRow>().WithMany().HasForeignKey(r => r.DocumentId).OnDelete(DeleteBehavior.Cascade);
        });
        modelBuilder.Entity<ProofRow>(proof =>
        {
            proof.ToTable("proof");
            proof.HasKey(p => new { p.CardId, p.Number });
            proof.Property(p => p.CardId).HasColumnName("card_id");
            proof.Property(p => p.Number).HasColumnName("number").ValueGeneratedNever();
            proof.Property(p => p.Trial).HasColumnName("trial");
            proof.Property(p => p.TrialId).HasColumnName("trial_id");
            proof.Property(p => p.RestsOn).HasColumnName("rests_on").HasColumnType("jsonb");
            proof.Property(p => p.Program).HasColumnName("program");
            proof.Property(p => p.At).HasColumnName("at");
            proof.HasOne<RevisionRow>().WithOne().HasForeignKey<ProofRow>(p => new { p.CardId, p.Number }).OnDelete(DeleteBehavior.Cascade);
        });
        modelBuilder.Entity<PrintRow>(print =>
        {
            print.ToTable("print");
            print.HasKey(p => p.Id);
            print.Property(p => p.Id).HasColumnName("id").ValueGeneratedNever();
            print.Property(p => p.CardId).HasColumnName("card_id");
            print.Property(p => p.Record).HasColumnName("record").HasColumnType("jsonb");
            print.Property(p => p.Picture).HasColumnName("picture");
            print.Property(p => p.At).HasColumnName("at");
            print.HasIndex(p => new { p.CardId, p.At });
            print.HasOne<DocumentRow>().WithMany().HasForeignKey(p => p.CardId).OnDelete(DeleteBehavior.Cascade);
            print.HasOne<BlobRow>().WithMany().HasForeignKey(p => p.Picture).OnDelete(DeleteBehavior.Restrict);
        });
        modelBuilder.Entity<JobRow>(job =>
        {
            job.ToTable("job");
            job.HasKey(j => j.Id);
            job.Property(j => j.Id).HasColumnName("id").ValueGeneratedNever();
            job.Property(j => j.CardId).HasColumnName("card_id");
            job.Property(j => j.Name).HasColumnName("name");
            job.Property(j => j.How).HasColumnName("how")
                .HasConversion(h => h.ToString().ToLowerInvariant(), h => Enum.Parse<JobHow>(h, true));
            job.Property(j => j.State).HasColumnName("state")
                .HasConversion(s => s.ToString().ToLowerInvariant(), s => Enum.Parse<JobState>(s, true));
            job.Property(j => j.Line).HasColumnName("line");
            job.Property(j => j.Taken).HasColumnName("taken");
            job.Property(j => j.Count).HasColumnName("count");
            job.Property(j => j.Message).HasColumnName("message");
            job.Property(j => j.Heaters).HasColumnName("heaters");
            job.Property(j => j.BeganAt).HasColumnName("began_at");
            job.Property(j => j.SeenAt).HasColumnName("seen_at");
            job.HasIndex(j => new { j.CardId, j.BeganAt });
            job.HasOne<DocumentRow>().WithMany().HasForeignKey(j => j.CardId).OnDelete(DeleteBehavior.Cascade);
        });
        modelBuilder.Entity<DoneRow>(done =>
        {
            done.ToTable("done");
            done.HasKey(d => d.Name);
            done.Property(d => d.Name).HasColumnName("name");
            done.Property(d => d.At).HasColumnName("at");
        });
    }
}
