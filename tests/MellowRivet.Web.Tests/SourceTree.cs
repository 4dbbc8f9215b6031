namespace MellowRivet.Web.Tests;

/// <summary>The sources the program was built from, for what is said of the house itself.</summary>
internal static class SourceTree
{
    private static readonly string[] Made = ["obj", "bin", "node_modules", "lib", ".rivet", ".git"];

    /// <summary>The project's folder: the one above the tests that holds the solution.</summary>
    public static string Root { get; } = Above(AppContext.BaseDirectory);

    /// <summary>Files that people wrote, below some folders of the project; paths from its root, with forward slashes.</summary>
    public static IEnumerable<string> Files(params string[] folders) =>
        folders.SelectMany(folder => Below(Path.Combine(Root, folder))).Select(file => Path.GetRelativePath(Root, file).Replace('\\', '/'));

    public static string Read(string file) => File.ReadAllText(Path.Combine(Root, file));

    public static string[] Lines(string file) => File.ReadAllLines(Path.Combine(Root, file));

    private static IEnumerable<string> Below(string folder) => Directory.EnumerateFiles(folder)
        .Concat(Directory.EnumerateDirectories(folder).Where(inner => !Made.Contains(Path.GetFileName(inner))).SelectMany(Below));

    private static string Above(string folder) =>
        File.Exists(Path.Combine(folder, "MellowRivet.slnx")) ? folder
        : Above(Path.GetDirectoryName(folder.TrimEnd(Path.DirectorySeparatorChar))
            ?? throw new InvalidOperationException("These tests run inside the project's folder."));
}
