using MellowRivet.Web.Hosting;

return await CommandLine.RunAsync(args);
