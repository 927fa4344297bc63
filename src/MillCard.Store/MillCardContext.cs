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
    /// <summary>Pattern sources that were taken.</summary>
    public DbSet<PatternSourceRow> PatternSources => Set<PatternSourceRow>();
    /// <summary>Versions of their patterns.</summary>
    public DbSet<PatternVersionRow> PatternVersions => Set<PatternVersionRow>();
    /// <summary>What was done once.</summary>
    public DbSet<DoneRow> Done => Set<DoneRow>();

    /// <inheritdoc/>
    protected override void OnModelCreating(ModelBuilder modelBuilder) =>
        modelBuilder.ApplyConfigurationsFromAssembly(typeof(MillCardContext).Assembly);
}
